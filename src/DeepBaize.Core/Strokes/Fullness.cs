namespace DeepBaize.Core.Strokes;

/// <summary>How full the object ball is struck, in the trade's words.</summary>
public enum Fullness
{
    /// <summary>Full.</summary>
    Full,

    /// <summary>Three-quarter ball.</summary>
    ThreeQuarter,

    /// <summary>Half-ball.</summary>
    Half,

    /// <summary>Quarter-ball.</summary>
    Quarter,

    /// <summary>Fine.</summary>
    Fine,
}

/// <summary>Words for a fullness.</summary>
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
