using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>A stroke in the player's own units; <see cref="Physics.Strike"/> is the same in the model's.</summary>
/// <param name="AimDegrees">Direction of the cue in plan, counter-clockwise from straight up the table.</param>
/// <param name="SideTips">Tips of side, + is right-hand.</param>
/// <param name="HeightTips">Tips above centre.</param>
/// <param name="Pace">1 to 10.</param>
/// <param name="ElevationDegrees">Of the butt above level, 0–60.</param>
public readonly record struct Stroke(double AimDegrees, double SideTips, double HeightTips, double Pace, double ElevationDegrees)
{
    /// <summary>In the model's units.</summary>
    /// <exception cref="InputException">A figure out of range, not a number, or a miscue.</exception>
    public Strike ToStrike(string path = "stroke")
    {
        var checks = new Checks(path);
        checks.Range("aim", AimDegrees, -3600, 3600, "°");
        checks.Range("side", SideTips, -Tip.Limit, Tip.Limit, " tips");
        checks.Range("height", HeightTips, -Tip.Limit, Tip.Limit, " tips");
        checks.Range("pace", Pace, Strokes.Pace.Slowest, Strokes.Pace.Hardest);
        checks.Range("elevation", ElevationDegrees, 0, Strike.MaxElevationDegrees, "°");
        if (checks.AreMet)
            checks.That(
                Tip.Margin(SideTips, HeightTips) >= -1e-9,
                "side",
                "The tip would slip off so far from the centre: a miscue.",
                $"side and height together at most {Tip.Limit:0.####} tips from the centre"
            );
        checks.ThrowIfAny();
        return Strike.Create(
            AimDegrees,
            Strokes.Pace.CueSpeed(Pace),
            Tip.Fraction(SideTips),
            Tip.Fraction(HeightTips),
            ElevationDegrees,
            path
        );
    }

    /// <summary>Plays the stroke from a layout just as it is meant.</summary>
    public void Play(Simulator simulator, Layout layout, ShotRecord? record = null)
    {
        simulator.Place(layout.AsSpan());
        simulator.Release([(0, ToStrike().Launch(simulator.Conditions))], record);
    }
}
