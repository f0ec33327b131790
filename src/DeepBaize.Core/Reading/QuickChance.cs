using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>
/// The chance of a pot by plain geometry, for what is asked for by the thousand: errors of aim carried to the contact and across it. It
/// only sorts; what is told is played. docs/planning.md, "How likely, quickly".
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
        var (byDirection, bySighting) = (skill.DirectionDegrees * Math.PI / 180 * distance, skill.SightingAt(degrees, distance));
        var (byAllowance, bySwerve) = (skill.AllowancePercent / 100 * allowed, SwervePerTip * skill.SideError * distance);
        var (byTip, byPace) = (ThrowPerTip * skill.SideError, ThrowPerPace * skill.PacePercent / 100 * sin);
        var shift = byDirection * byDirection + bySighting * bySighting + byAllowance * byAllowance + bySwerve * bySwerve;
        var spread = Math.Sqrt(shift / (4 * BallRadius * BallRadius * cos * cos) + byTip * byTip + byPace * byPace);
        // Somebody without any error pots whatever can be potted.
        spread = Math.Max(spread, 1e-9);
        var factor = SharedFactor.Of(skill.Evenness);
        return (factor.Within(window.Narrow.Radians / spread) + factor.Within(window.Wide.Radians / spread)) / 2;
    }
}
