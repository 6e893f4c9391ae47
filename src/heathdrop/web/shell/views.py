"""The sheet's views, in the order of work: the one place that names them."""

#: Id and label, in order; the keys 1, 2, 3 … choose them.
VIEWS = (("water", "Water"), ("size", "Size"), ("rig", "Rig"), ("cast", "Cast"), ("search", "Search"))
VIEW_IDS = tuple(id_ for id_, _ in VIEWS)
FIRST = "size"
