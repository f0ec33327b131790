namespace DeepBaize.Core.Strokes;

/// <summary>How full the object ball is struck, in the trade's words.</summary>
public enum Fullness
{
    Full,
    ThreeQuarter,
    Half,
    Quarter,
    Fine,
}

public static class Fullnesses
{
    /// <summary>The named fullness that is nearest to a share of the ball, 1 full to 0 a miss.</summary>
    public static Fullness Nearest(double share) =>
        share switch
        {
            >= 0.875 => Fullness.Full,
            >= 0.625 => Fullness.ThreeQuarter,
            >= 0.375 => Fullness.Half,
            >= 0.125 => Fullness.Quarter,
            _ => Fullness.Fine,
        };
}
