// The plane is what everything reckons in.
global using DeepBaize.Core.Geometry;
