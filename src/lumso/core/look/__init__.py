"""What it will look like: films as colour, surfaces as heights, and the picture of both."""
