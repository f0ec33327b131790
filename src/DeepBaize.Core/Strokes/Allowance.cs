using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// What the aim allows for, each as a shift of the cue ball across its line of aim at the contact, m: + thins the contact, − thickens it.
/// </summary>
/// <param name="Squirt">Where side pushes the cue ball.</param>
/// <param name="Swerve">Where a raised butt with side curves it on the way.</param>
/// <param name="Throw">As much as the object ball's throw comes to: what would turn it so without throw.</param>
/// <param name="Net">The aim that pots against the ghost ball's.</param>
public readonly record struct Allowance(double Squirt, double Swerve, double Throw, double Net)
{
    /// <summary>What squirt would come to at the pocket if it were not allowed for, m: + thin, − thick.</summary>
    public double SquirtAtPocket { get; init; }

    /// <summary>What swerve would come to at the pocket if it were not allowed for, m: + thin, − thick.</summary>
    public double SwerveAtPocket { get; init; }

    /// <summary>What throw would come to at the pocket if it were not allowed for, m: + thin, − thick.</summary>
    public double ThrowAtPocket { get; init; }

    /// <param name="aimDegrees">The aim that pots.</param>
    public static Allowance Of(in Cut cut, in Arrival arrival, double aimDegrees)
    {
        // Cut to the left, the cue ball passes on the right: a shift to the left thickens.
        var thin = cut.CutDegrees > 0 ? -1 : 1;
        var distance = cut.CueBallDistance;
        double Across(double degrees) => thin * distance * Math.Tan(degrees * Math.PI / 180);
        // A ball thrown to the left of its line of centres goes as if the cue ball stood that angle farther to the right around it.
        var byThrow = -thin * 2 * BallRadius * Math.Cos(cut.CutDegrees * Math.PI / 180) * Math.Sin(arrival.ThrowDegrees * Math.PI / 180);
        var (squirt, swerve) = (Across(arrival.SquirtDegrees), Across(arrival.SwerveDegrees));
        var (offset, onwards) = (cut.AimOffset, cut.PotDistance);
        // A shift across the line of aim turns the line of centres; that, and throw, is carried on to the pocket.
        double AtPocket(double shift) =>
            onwards * Math.Tan(Math.Asin(Math.Clamp((offset + shift) / (2 * BallRadius), -1, 1)) - Math.Asin(offset / (2 * BallRadius)));
        return new(squirt, swerve, byThrow, Across(aimDegrees - cut.AimDegrees))
        {
            SquirtAtPocket = AtPocket(squirt),
            SwerveAtPocket = AtPocket(swerve),
            ThrowAtPocket = -thin * onwards * Math.Tan(arrival.ThrowDegrees * Math.PI / 180),
        };
    }
}
