"""Kit: leads, adapters and boxes that are owned."""
