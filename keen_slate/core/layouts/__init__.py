"""Working -> what is written where: `line`, `stacked`, `four-box`, `checklist`. Data only; screens place it."""
