using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>
/// How far off the middle of the opening a ball may go and still goes in, some of it off a jaw: past the jaw that stands farther off it may
/// go farther than past the other.
/// </summary>
public readonly record struct PotWindow(Angle Narrow, Angle Wide)
{
    // Beyond the clear opening a jaw still lets in so much, mm across at the pocket, by the angle of the ball's way: of a corner to the
    // nearer cushion, of a middle to straight across. Fitted to played-out windows: docs/planning.md, "How likely, quickly".
    private static readonly (double Degrees, double Beyond)[] CornerNarrow =
        [(7, 6.0), (12, 5.1), (17, 3.6), (22, 4.5), (27, 6.2), (32, 8.6), (37, 10.5), (42, 12.8), (45, 13.4)],
        CornerWide = [(7, 19.8), (12, 20.7), (17, 23), (22, 23.5), (27, 22.1), (32, 20.7), (37, 18.5), (42, 16), (45, 15.3)],
        MiddleNarrow = [(0, 9), (7, 8.6), (17, 7.5), (22, 5.9), (27, 5.5), (32, 4.1), (37, 3.6), (42, 2.5), (47, 1.8), (52, 1), (57, 0.6)],
        MiddleWide = [(0, 12.2), (7, 11.8), (17, 10.1), (22, 9.1), (27, 8.2), (32, 7.3), (37, 6.3), (42, 5), (47, 4.3), (52, 3.2), (57, 2.8)];

    /// <param name="opening">Between the lines that just clear either jaw; negative if there is none.</param>
    /// <param name="direction">Of the ball's way.</param>
    /// <param name="distance">To the drop, m.</param>
    public static PotWindow Of(Angle opening, Angle direction, double distance, Pocket pocket)
    {
        var along = Math.Acos(Math.Min(1, Math.Abs(direction.Unit.X))) * 180 / Math.PI;
        var isMiddle = pocket.IsMiddle();
        var degrees = isMiddle ? 90 - along : Math.Min(along, 90 - along);
        Angle Half((double, double)[] beyond) =>
            Angle.FromRadians(
                Math.Max(0, opening.Radians / 2 + PiecewiseLinear.At(degrees, beyond) / 1000 / Math.Max(distance, BallRadius))
            );
        return isMiddle ? new(Half(MiddleNarrow), Half(MiddleWide)) : new(Half(CornerNarrow), Half(CornerWide));
    }

    /// <summary>Of a pot whose geometry is known.</summary>
    public static PotWindow Of(in Cut cut) =>
        Of(Angle.FromDegrees(cut.OpeningDegrees), Angle.FromDegrees(cut.FinalDegrees), (cut.Last ?? cut.First).Length, cut.Pocket);
}

/// <summary>
/// The chance of a pot by plain geometry, for what is asked for by the thousand: errors of aim carried to the contact and across it. It only
/// sorts; what is told is played. docs/planning.md, "How likely, quickly".
/// </summary>
public static class QuickChance
{
    // Fitted to sampling: what an error of the tip by a radius does by throw, radians, and by swerve, m of shift for each m of the white's
    // way; and what an error of the whole pace does to the throw of a full cut, radians.
    private const double ThrowPerTip = 0.36,
        SwervePerTip = 0.025,
        ThrowPerPace = 0.056;

    // To make up for throw a ball is cut by so much more than the line asks, from this cut on in full; degrees.
    private const double ThrowDegrees = 3.4,
        FullThrowDegrees = 15,
        ThinnestDegrees = 85;

    /// <param name="cut">φ, not signed.</param>
    /// <param name="distance">Of the white from the ghost ball, m.</param>
    /// <param name="skill">With what reach and power make of it.</param>
    /// <param name="allowed">How far across the aim is off the ghost ball for side, m.</param>
    public static double Of(in PotWindow window, Angle cut, double distance, Skill skill, double allowed = 0)
    {
        var degrees = Math.Min(ThinnestDegrees, cut.Degrees + ThrowDegrees * Math.Min(1, cut.Degrees / FullThrowDegrees));
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        var (byDirection, bySighting) = (skill.DirectionDegrees * Math.PI / 180 * distance, skill.SightingAt(degrees));
        var (byAllowance, bySwerve) = (skill.AllowancePercent / 100 * allowed, SwervePerTip * skill.TipError * distance);
        var (byTip, byPace) = (ThrowPerTip * skill.TipError, ThrowPerPace * skill.PacePercent / 100 * sin);
        var shift = byDirection * byDirection + bySighting * bySighting + byAllowance * byAllowance + bySwerve * bySwerve;
        var spread = Math.Sqrt(shift / (4 * BallRadius * BallRadius * cos * cos) + byTip * byTip + byPace * byPace);
        var steadiness = Steadiness.Of(skill.Evenness);
        return (steadiness.Within(window.Narrow.Radians / spread) + steadiness.Within(window.Wide.Radians / spread)) / 2;
    }
}
