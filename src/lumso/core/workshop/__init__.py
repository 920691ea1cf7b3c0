"""What is true across jobs: kit, shelf, values known better."""
