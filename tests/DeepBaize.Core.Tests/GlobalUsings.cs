global using DeepBaize.Core.Geometry;
