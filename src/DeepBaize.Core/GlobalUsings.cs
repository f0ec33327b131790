// The plane is what every room reckons in.
global using DeepBaize.Core.Geometry;
