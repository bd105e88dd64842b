"""The demo's world: the settings of Kiln & Kettle and the people who look after it."""
