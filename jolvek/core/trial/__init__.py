"""The sea trial: runs paired and judged, the boat's own factors fitted, faults diagnosed, families
learned from.
"""
