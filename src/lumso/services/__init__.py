"""What Lumso does, as functions over store and core: open a job, change it, begin a pot, buy. No web."""
