namespace DeepBaize.Core.Strokes;

/// <summary>What a player turns to play the same shot otherwise.</summary>
public enum StrokeKnob
{
    /// <summary>Pace on the scale of 1 to 10.</summary>
    Pace,

    /// <summary>Height of the tip, tips.</summary>
    Height,

    /// <summary>Side, tips.</summary>
    Side,

    /// <summary>Elevation of the butt, degrees.</summary>
    Elevation,

    /// <summary>Direction of the aim, degrees.</summary>
    Aim,
}

/// <summary>Reads and turns the knobs of a stroke.</summary>
public static class Knobs
{
    /// <summary>Returns the setting of a knob, in its unit.</summary>
    public static double Of(this StrokeKnob knob, in Stroke stroke) =>
        knob switch
        {
            StrokeKnob.Pace => stroke.Pace,
            StrokeKnob.Height => stroke.HeightTips,
            StrokeKnob.Side => stroke.SideTips,
            StrokeKnob.Elevation => stroke.ElevationDegrees,
            _ => stroke.AimDegrees,
        };

    /// <summary>Returns the stroke with a knob at a setting.</summary>
    public static Stroke Turned(this StrokeKnob knob, in Stroke stroke, double setting) =>
        knob switch
        {
            StrokeKnob.Pace => stroke with { Pace = setting },
            StrokeKnob.Height => stroke with { HeightTips = setting },
            StrokeKnob.Side => stroke with { SideTips = setting },
            StrokeKnob.Elevation => stroke with { ElevationDegrees = setting },
            _ => stroke with { AimDegrees = setting },
        };

    /// <summary>Lowest and highest settings of a knob, the others as they are; no bounds of the aim.</summary>
    public static (double Least, double Most) Limits(this StrokeKnob knob, in Stroke stroke)
    {
        static double Room(double other) => Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - other * other)) - 1e-6;
        return knob switch
        {
            StrokeKnob.Pace => (Pace.Slowest, Pace.Hardest),
            StrokeKnob.Height => (-Room(stroke.SideTips), Room(stroke.SideTips)),
            StrokeKnob.Side => (-Room(stroke.HeightTips), Room(stroke.HeightTips)),
            StrokeKnob.Elevation => (0, Physics.Strike.MaxElevationDegrees),
            _ => (double.NegativeInfinity, double.PositiveInfinity),
        };
    }

    /// <summary>Whether a knob can be set so, the others as they are.</summary>
    public static bool Allows(this StrokeKnob knob, in Stroke stroke, double setting)
    {
        var (least, most) = knob.Limits(stroke);
        return setting >= least - 1e-9 && setting <= most + 1e-9;
    }
}
