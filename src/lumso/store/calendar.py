"""What was handed to a calendar, so that the next time what moved rises and what went is cancelled."""

from collections.abc import Sequence

from lumso.core.days.entries import Entry, Numbered

from .database import Database


def numbered(db: Database, entries: Sequence[Entry]) -> list[Numbered]:
    """The entries with their numbers: higher than the last time where one has changed, and those that went, too."""
    made = []
    with db.write() as connection:
        known = {r["uid"]: r for r in connection.execute("SELECT * FROM calendar_entry")}
        for entry in entries:
            before = known.pop(entry.uid, None)
            same = before is not None and before["state"] == entry.state and not before["gone"]
            sequence = 0 if before is None else before["sequence"] + (0 if same else 1)
            connection.execute(
                "INSERT OR REPLACE INTO calendar_entry VALUES (?, ?, ?, ?, ?, ?, 0)",
                (entry.uid, sequence, entry.begins, entry.ends, entry.summary, entry.state),
            )
            made.append(Numbered(entry, sequence, False))
        for uid, before in known.items():
            sequence = before["sequence"] + (0 if before["gone"] else 1)
            connection.execute("UPDATE calendar_entry SET sequence = ?, gone = 1 WHERE uid = ?", (sequence, uid))
            entry = Entry(uid, before["begins"], before["ends"], before["summary"], before["state"])
            made.append(Numbered(entry, sequence, True))
    return made
