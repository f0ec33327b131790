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

    public const double BallRadius = 0.0525 / 2;
    public const double BallMass = 0.1406;

    public const double BaulkLineX = 0.737;
    public const double DRadius = 0.292;
    public const double BlackFromTopCushion = 0.324;

    /// <summary>Where each colour is spotted, by ball index 1–6.</summary>
    public static (double X, double Y) Spot(Ball colour) => colour.Index switch
    {
        1 => (BaulkLineX, Width / 2 - DRadius),
        2 => (BaulkLineX, Width / 2 + DRadius),
        3 => (BaulkLineX, Width / 2),
        4 => (Length / 2, Width / 2),
        5 => (3 * Length / 4, Width / 2),
        6 => (Length - BlackFromTopCushion, Width / 2),
        _ => throw new ArgumentException("Only a colour has a spot.", nameof(colour)),
    };

    /// <summary>Whether a point lies in the D or on its lines, with a tolerance of 1 µm.</summary>
    public static bool InD(double x, double y) =>
        x <= BaulkLineX + 1e-6 && Math.Pow(x - BaulkLineX, 2) + Math.Pow(y - Width / 2, 2) <= Math.Pow(DRadius + 1e-6, 2);
}
