using DeepBaize.Core.Players;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>How a player gets at a step: by which hand or reach, and whether he bridges on the rail.</summary>
/// <param name="ByCushion">Whether the white lies so near a cushion that the bridge is on the rail or the cushion.</param>
public sealed record Circumstance(Stance Stance, bool ByCushion)
{
    /// <summary>Nearer than this the bridge hand has no room on the cloth, m. Common practice, no source.</summary>
    private const double BridgeOnRail = 0.12;

    /// <exception cref="InputException">The step cannot be played.</exception>
    public static Circumstance Of(Step step, Player player, TableShape shape)
    {
        var layout = step.LayoutOn(shape);
        var stroke = step.StrokeOn(layout, shape, player);
        return new(Reach.Of(layout, stroke, player).Stance, Cushions.Clearance(layout.White.At) < BridgeOnRail);
    }
}
