"""The gate's own commands, one file each; `registry` lists them."""
