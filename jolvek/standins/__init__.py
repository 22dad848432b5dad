"""Simulated devices and services behind the Protocols that real ones would serve; always marked as
simulated on screen.
"""
