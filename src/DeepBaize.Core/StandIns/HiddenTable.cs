using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.StandIns;

/// <summary>
/// A made-up table and player whose figures are hidden: everything that learns or looks on can be tried with them, without a table.
/// </summary>
public static class HiddenTable
{
    /// <summary>The cloth is slower than it was taken for, the cushions duller, and slow balls run off to the green's side.</summary>
    public static TableShape Shape { get; } =
        new(Conditions.Default with { RollingFriction = 0.0151, SlidingFriction = 0.205, CushionRestitution = 0.955, DriftAcross = 0.004 });

    /// <summary>Who plays on it.</summary>
    public static Skill Skill { get; } = Skill.Named("county");

    /// <summary>Plays a stroke with an error of the hidden player; the simulator is left as the stroke leaves it.</summary>
    /// <param name="record">Written down if given.</param>
    public static void Play(Simulator simulator, Layout layout, in Stroke stroke, Random random, ShotRecord? record = null)
    {
        var error = Scatter.Of(layout, stroke, Skill, Shape).Error(StandardDraws.Draw(random));
        error.Play(simulator, layout, stroke, record);
    }
}
