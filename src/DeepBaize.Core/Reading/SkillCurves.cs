using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>What makes a stroke harder, one thing at a time.</summary>
public enum CurveKind
{
    /// <summary>The white's distance from the red, m, of a straight pot with the red 1 m from the pocket.</summary>
    Distance,

    /// <summary>The white's distance from a red in the open, m, cut by 20° into a corner 0.7 m on.</summary>
    OpenRed,

    /// <summary>The cut, degrees; 0.6 m to the red, 0.8 m on.</summary>
    Cut,

    /// <summary>The cut of a double into a middle pocket, degrees.</summary>
    Double,

    /// <summary>Pace, of a half-ball pot 0.6 m to the red, 0.8 m on.</summary>
    Power,

    /// <summary>Tips of side, helping positive, of a half-ball pot at pace 5, 0.6 m to the red and 0.8 m on.</summary>
    Side,

    /// <summary>How far below the centre the ball is struck, tips: the share of miscues.</summary>
    Miscue,

    /// <summary>How far the white runs from the half-ball black, m: the share that stops within 150 mm of where it should.</summary>
    Position,

    /// <summary>What an awkward place makes of the half-ball pot: by how much the errors grow.</summary>
    Reach,
}

/// <summary>A point of a curve.</summary>
/// <param name="Share">Of the strokes, 0–1.</param>
public sealed record CurvePoint(double X, Estimate Share);

/// <summary>How often a player brings a stroke off, as one thing is changed.</summary>
public sealed record SkillCurve(CurveKind Kind, IReadOnlyList<CurvePoint> Points);

/// <summary>What a skill means at the table: for the player's place and docs/curves.md.</summary>
public static class SkillCurves
{
    private const double Place = 0.15;

    private static readonly ErrorStream Telling = ErrorStream.Named("curves");

    /// <summary>By how much the errors grow: naturally, at a stretch, with the rest or the other hand, and with a steep butt.</summary>
    private static double[] ReachFactors(Skill skill) =>
        [.. new[] { 1, (1 + skill.RestFactor) / 2, skill.RestFactor, Math.Max(2, 1.5 * skill.RestFactor) }.Distinct().Order()];

    /// <param name="strokes">For each point.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static IReadOnlyList<SkillCurve> Of(Skill skill, TableShape shape, Workers workers, int strokes = 1024)
    {
        var asked = Enum.GetValues<CurveKind>().SelectMany(kind => PlacesOf(kind, skill).Select(x => (Kind: kind, X: x))).ToList();
        var points = workers.InParallel(
            asked.Count,
            i => new CurvePoint(asked[i].X, ShareOf(asked[i].Kind, asked[i].X, skill, shape, workers.Bounded(strokes, 64), workers.Cancel))
        );
        return
        [
            .. asked
                .Select((a, i) => (a.Kind, Point: points[i]))
                .GroupBy(p => p.Kind)
                .Select(g => new SkillCurve(g.Key, [.. g.Select(p => p.Point)])),
        ];
    }

    private static double[] PlacesOf(CurveKind kind, Skill skill) =>
        kind switch
        {
            CurveKind.Distance => [0.2, 0.4, 0.7, 1, 1.4, 1.8, 2.3],
            CurveKind.OpenRed => [0.5, 1, 1.5, 2, 2.5, 2.8],
            CurveKind.Double => [0, 10, 20, 30, 40],
            CurveKind.Cut => [0, 15, 30, 40, 50, 60, 65],
            CurveKind.Power => [3, 4, 5, 6, 7, 8, 9, 10],
            CurveKind.Side => [-1.2, -0.8, -0.4, 0, 0.4, 0.8, 1.2],
            CurveKind.Miscue => [0.8, 1, 1.2, 1.3, 1.4, 1.5, 1.55],
            CurveKind.Position => [0.3, 0.6, 1, 1.5, 2, 3],
            _ => ReachFactors(skill),
        };

    private static Estimate ShareOf(CurveKind kind, double x, Skill skill, TableShape shape, int strokes, CancellationToken cancel)
    {
        StandardShot Half(double pace) => StandardShots.Red(shape, 30, 0.8, 0.6, 30, pace);
        StandardShot Turned(StandardShot shot, double side, double height) =>
            StandardShots.Of(
                shape,
                shot.Layout.Balls[1],
                shot.Pot.Pocket,
                (0.6, 30),
                shot.Stroke with
                {
                    SideTips = side,
                    HeightTips = height,
                }
            );
        if (kind == CurveKind.Position)
        {
            var (running, rest, _) = StandardShots.Running(shape, x);
            return Odds(running, skill, StopIn.Create(rest.X, rest.Y, Place)).Wanted;
        }
        var shot = kind switch
        {
            CurveKind.Distance => StandardShots.Red(shape, 30, 1, x, 0, 5),
            CurveKind.OpenRed => StandardShots.OpenRed(shape, x),
            CurveKind.Double => StandardShots.Double(shape, x),
            CurveKind.Cut => StandardShots.Red(shape, 30, 0.8, 0.6, x, 4),
            CurveKind.Power => Half(x),
            // Cut to the left, right-hand side helps.
            CurveKind.Side => Turned(Half(5), x, 0),
            CurveKind.Miscue => Turned(Half(5), 0, -x),
            _ => Half(4),
        };
        var odds = Odds(shot, kind == CurveKind.Reach ? skill.Times(x) : skill, null);
        return kind == CurveKind.Miscue ? odds.Miscue : odds.Pot;

        SpreadOdds Odds(StandardShot of, Skill able, Goal? goal) =>
            Spread
                .Sample(
                    new(of.Layout, of.Stroke, of.Pot, able, shape, goal),
                    Workers.Single(cancel),
                    SpreadEffort.Of(strokes),
                    Telling,
                    outlines: false
                )
                .Odds;
    }
}
