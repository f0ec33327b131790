using System.Collections.Concurrent;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Physics;

/// <summary>What a cushion does to a ball, in units of the speed of approach.</summary>
/// <param name="Away">Speed away from the cushion.</param>
/// <param name="Nose">Friction impulse along the cushion, per mass, at the nose.</param>
/// <param name="Cloth">At the cloth.</param>
/// <param name="Turn">R times the spin about the line along the cushion, afterwards.</param>
internal readonly record struct ReboundImpulses(double Away, double Nose, double Cloth, double Turn);

/// <summary>
/// Rebounds of balls that roll, by the slip B along the cushion at the nose: nodes in B/(1 + |B|), worked out when first asked for, and
/// straight lines between. A node's value does not depend on who asks first, so the same shot stays the same to the bit.
/// </summary>
internal sealed class RollingRebounds
{
    /// <summary>Against the integration itself off by at most 1e-5 of the speed of approach (docs/model.md).</summary>
    private const int Nodes = 4096;

    /// <summary>Number of cached tables, some 150 kB each.</summary>
    private const int Kept = 24;

    private static readonly ConcurrentDictionary<(double, double, double, double), RollingRebounds> Known = new();

    private readonly Node?[] _nodes = new Node?[Nodes + 1];
    private readonly Func<double, ReboundImpulses> _integrate;

    private sealed record Node(ReboundImpulses Value);

    private RollingRebounds(Func<double, ReboundImpulses> integrate) => _integrate = integrate;

    /// <summary>The table of these conditions.</summary>
    /// <param name="integrator">Makes what integrates the rebound of a rolling ball with a slip, if there is no table yet.</param>
    public static RollingRebounds Of(Conditions c, Func<Func<double, ReboundImpulses>> integrator)
    {
        if (Known.Count > Kept)
            Known.Clear();
        return Known.GetOrAdd((c.NoseSine, c.CushionFriction, c.SlidingFriction, c.CushionRestitution), _ => new(integrator()));
    }

    public ReboundImpulses At(double slip)
    {
        // Mirrored along the cushion, all along it changes its sign.
        var size = Math.Abs(slip);
        var at = size / (1 + size) * Nodes;
        var below = Math.Min(Nodes - 1, (int)at);
        var (a, b, share) = (Of(below), Of(below + 1), at - below);
        var sign = slip < 0 ? -1 : 1;
        return new(
            a.Away + share * (b.Away - a.Away),
            sign * (a.Nose + share * (b.Nose - a.Nose)),
            sign * (a.Cloth + share * (b.Cloth - a.Cloth)),
            a.Turn + share * (b.Turn - a.Turn)
        );
    }

    private ReboundImpulses Of(int node)
    {
        var known = Volatile.Read(ref _nodes[node]);
        if (known is null)
        {
            // The last stands for a ball that hardly comes nearer.
            known = new(_integrate(node == Nodes ? 1e7 : (double)node / (Nodes - node)));
            Volatile.Write(ref _nodes[node], known);
        }
        return known.Value;
    }
}
