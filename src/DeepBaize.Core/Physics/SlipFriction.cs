using System.Collections.Concurrent;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Physics;

/// <summary>Ball on ball friction by slip, looked up: nodes and straight lines between, off by less than 1e-5.</summary>
internal sealed class SlipFriction
{
    private const double PerNode = 1.0 / 64;
    private const int Nodes = 1026;

    /// <summary>Number of cached tables, some 8 kB each.</summary>
    private const int Kept = 64;

    private static readonly ConcurrentDictionary<(double, double, double), SlipFriction> Known = new();

    private readonly double[] _nodes;

    private SlipFriction(Conditions c) => _nodes = [.. Enumerable.Range(0, Nodes).Select(i => c.BallFriction(i * PerNode))];

    /// <summary>The table of these conditions.</summary>
    public static SlipFriction Of(Conditions c)
    {
        if (Known.Count > Kept)
            Known.Clear();
        return Known.GetOrAdd((c.BallFrictionFloor, c.BallFrictionRange, c.BallFrictionDecay), _ => new(c));
    }

    /// <param name="slip">m/s, 0 or more.</param>
    public double At(double slip)
    {
        var at = Math.Min(slip / PerNode, Nodes - 2);
        var below = (int)at;
        return _nodes[below] + (at - below) * (_nodes[below + 1] - _nodes[below]);
    }
}
