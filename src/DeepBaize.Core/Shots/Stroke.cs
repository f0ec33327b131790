using DeepBaize.Core.Physics;

namespace DeepBaize.Core.Shots;

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
        var errors = new List<InputError>();
        void Check(string field, double value, double min, double max, string unit)
        {
            if (!(value >= min && value <= max)) errors.Add(new($"{path}.{field}", $"{value} is out of range.", $"{min:0.####} to {max:0.####}{unit}"));
        }
        Check("aim", AimDegrees, -3600, 3600, "°");
        Check("side", SideTips, -Tip.Limit, Tip.Limit, " tips");
        Check("height", HeightTips, -Tip.Limit, Tip.Limit, " tips");
        Check("pace", Pace, Shots.Pace.Slowest, Shots.Pace.Hardest, "");
        Check("elevation", ElevationDegrees, 0, Strike.MaxElevationDegrees, "°");
        if (errors.Count == 0 && Tip.Margin(SideTips, HeightTips) < -1e-9)
            errors.Add(new($"{path}.side", "The tip would slip off so far from the centre: a miscue.", $"side and height together at most {Tip.Limit:0.####} tips from the centre"));
        InputException.ThrowIfAny(errors);
        return Strike.Create(AimDegrees, Shots.Pace.CueSpeed(Pace), Tip.Fraction(SideTips), Tip.Fraction(HeightTips), ElevationDegrees, path);
    }
}
