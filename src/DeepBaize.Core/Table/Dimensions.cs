namespace DeepBaize.Core.Table;

/// <summary>
/// The full-size table and its balls, in metres and kilograms. From the Official Rules of the Games of Snooker and
/// English Billiards, Section 1 (from memory), but for the ball's mass, which is Mathavan, Jackson &amp; Parkin 2010.
/// </summary>
public static class Dimensions
{
    /// <summary>Baulk cushion's nose to top cushion's nose (the rules allow ±0.013).</summary>
    public const double Length = 3.569;

    /// <summary>Side nose to side nose (the rules allow ±0.013).</summary>
    public const double Width = 1.778;

    /// <summary>Radius of a ball, m.</summary>
    public const double BallRadius = 0.0525 / 2;

    /// <summary>Mass of a ball, kg.</summary>
    public const double BallMass = 0.1406;

    /// <summary>Distance of the baulk line from the baulk cushion, m.</summary>
    public const double BaulkLineX = 0.737;

    /// <summary>Radius of the D, m.</summary>
    public const double DRadius = 0.292;

    /// <summary>Distance of the black spot from the top cushion, m.</summary>
    public const double BlackFromTopCushion = 0.324;

    /// <summary>Between the noses.</summary>
    public static Box Bed { get; } = new(0, 0, Length, Width);

    /// <summary>The middle of the D: the brown's spot.</summary>
    public static Vec2 DCentre { get; } = new(BaulkLineX, Width / 2);

    /// <summary>Where each colour is spotted, by ball index 1–6.</summary>
    public static Vec2 Spot(Ball colour) =>
        colour.Index switch
        {
            1 => new(BaulkLineX, Width / 2 - DRadius),
            2 => new(BaulkLineX, Width / 2 + DRadius),
            3 => new(BaulkLineX, Width / 2),
            4 => new(Length / 2, Width / 2),
            5 => new(3 * Length / 4, Width / 2),
            6 => new(Length - BlackFromTopCushion, Width / 2),
            _ => throw new ArgumentException("Only a colour has a spot.", nameof(colour)),
        };

    /// <summary>Whether a point lies in the D or on its lines, with a tolerance of 1 µm.</summary>
    public static bool InD(Vec2 place) => place.X <= BaulkLineX + 1e-6 && (place - DCentre).SquaredLength <= Math.Pow(DRadius + 1e-6, 2);
}
