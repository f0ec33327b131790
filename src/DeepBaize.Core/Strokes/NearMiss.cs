using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>The nearest miss of a pot on either side.</summary>
public static class NearMiss
{
    private const double Step = 0.01,
        Most = 6;

    /// <summary>
    /// Returns the aim (degrees) nearest to the stroke's own at which the ball stays out on the thick or the thin side, the other balls in
    /// place.
    /// </summary>
    public static double Aim(Layout layout, in Stroke stroke, in Cut cut, bool thick, TableShape shape)
    {
        // A ball cut to the left is struck on its right: aimed farther to the right it is missed thin.
        var sign = (cut.CutDegrees >= 0) == thick ? 1 : -1;
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        for (var turn = Step; turn < Most; turn += Step)
        {
            var aim = stroke.AimDegrees + sign * turn;
            (stroke with { AimDegrees = aim }).Play(simulator, layout, record);
            // A little beyond the edge of what still goes in.
            if (simulator.IsOnTable(cut.Pot.Slot))
                return aim + sign * Step;
        }
        return stroke.AimDegrees + sign * Most;
    }
}
