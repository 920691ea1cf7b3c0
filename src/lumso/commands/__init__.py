"""What is done on the command line beside serving."""
