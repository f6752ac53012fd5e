"""What programs tell of themselves through the accessibility bus (AT-SPI)."""
