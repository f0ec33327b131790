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

    // What an error of the tip's height by a radius does: follow and screw take throw away, most of it at a cut of 20°, until the white
    // has come to roll on its way.
    private const double ThrowPerHeight = 0.2,
        MostAtDegrees = 20,
        RollsAfter = 1.5;

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
        var spread = SpreadOf(cut, distance, skill, allowed);
        var factor = SharedFactor.Of(skill.Evenness);
        return (factor.Within(window.Narrow.Radians / spread) + factor.Within(window.Wide.Radians / spread)) / 2;
    }

    /// <summary>
    /// The chance of a plant, a set or a double: the error of the struck ball carried to the last leg, and what its cushion adds.
    /// </summary>
    public static double OfIndirect(in Cut cut, Skill skill)
    {
        var first = SpreadOf(Angle.FromDegrees(Math.Abs(cut.CutDegrees)), cut.CueBallDistance, skill, 0);
        var last = Math.Max(cut.Last?.Length ?? 0, BallRadius);
        var half = Math.Max(0, cut.OpeningDegrees * Math.PI / 360 + BeyondOpening / last);
        var turn = Angle.FromDegrees(cut.FinalDegrees - cut.PotDegrees).Radians;
        var byCushion = Skill.DoubleFactor * skill.CushionDegrees * Math.PI / 180;
        var spread = cut.Kind switch
        {
            PotKind.Double => Math.Sqrt(Math.Pow(first * (1 + cut.First.Length / last), 2) + byCushion * byCushion),
            PotKind.Set => OfSet,
            _ => first * (1 + cut.First.Length / (2 * BallRadius * Math.Max(0.2, Math.Cos(turn)))),
        };
        return SharedFactor.Of(skill.Evenness).Within(half / Math.Max(spread, 1e-9));
    }

    // What the jaws still let in on either side, m at the pocket; and how far a set is thrown off its line, radians.
    private const double BeyondOpening = 0.007,
        OfSet = 0.02;

    /// <summary>The standard deviation of the direction in which the ball leaves, radians.</summary>
    private static double SpreadOf(Angle cut, double distance, Skill skill, double allowed)
    {
        var degrees = Math.Min(ThinnestDegrees, cut.Degrees + ThrowDegrees * Math.Min(1, cut.Degrees / FullThrowDegrees));
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        var (byDirection, bySighting) = (skill.DirectionDegrees * Math.PI / 180 * distance, skill.SightingAt(degrees, distance));
        var (byAllowance, bySwerve) = (skill.AllowancePercent / 100 * allowed, SwervePerTip * skill.SideError * distance);
        var (byTip, byPace) = (ThrowPerTip * skill.SideError, ThrowPerPace * skill.PacePercent / 100 * sin);
        var shift = byDirection * byDirection + bySighting * bySighting + byAllowance * byAllowance + bySwerve * bySwerve;
        var share = degrees / MostAtDegrees;
        var byHeight = ThrowPerHeight * skill.HeightError * share * Math.Exp(1 - share) * Math.Max(0, 1 - distance / RollsAfter);
        var spread = Math.Sqrt(shift / (4 * BallRadius * BallRadius * cos * cos) + byTip * byTip + byPace * byPace + byHeight * byHeight);
        // Somebody without any error pots whatever can be potted.
        return Math.Max(spread, 1e-9);
    }
}
