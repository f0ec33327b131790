using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>Last stage of <see cref="EscapeSearch"/>: figures, windows and drawings of the ways that are reported.</summary>
internal sealed class EscapeReport(SearchContext context, Situation from, AimWindows windows, EscapeTrials trials)
{
    private const double HardestPace = 9;

    /// <summary>Number of strokes whose best pot left is looked for by strokes, as a correction of the quick estimate.</summary>
    private const int LookedAt = 32;

    /// <summary>Estimates each way from a number of strokes of a stream.</summary>
    /// <param name="isFinal">Whether the pot that is left is judged by strokes.</param>
    public List<EscapeOption> Of(List<Placed<EscapeTrial>> ranked, int strokes, ErrorStream stream, bool isFinal) =>
        context.InParallel(ranked.Count, (workspace, i) => Of(workspace, ranked[i], strokes, stream, isFinal));

    private EscapeOption Of(Workspace workspace, Placed<EscapeTrial> placed, int strokes, ErrorStream stream, bool isFinal)
    {
        var (stroke, hit, _) = placed.Entrant;
        var named = trials.NamedFor(hit);
        var scatter = workspace.ScatterOf(from.Layout, stroke);
        var (hits, fair, missed, leaves) = (new Sums(), new Sums(), new Sums(), new Sums());
        var (pots, free, value, points) = (new Sums(), new Sums(), new Sums(), new Sums());
        var (morePots, moreValue) = (new Sums(), new Sums());
        for (var i = 0; i < strokes; i++)
        {
            var played = workspace.Play(from, stroke, scatter.Error(stream.At(i)), named);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var left = context.Judge.Of(played.Leaves, lines);
            var isFair = !played.Ruling.IsFoul;
            hits.Add(i, !played.Ruling.Fouls.Any(f => f is FoulReason.MissedAll or FoulReason.WrongBallFirst));
            fair.Add(i, isFair);
            missed.Add(i, !isFair);
            free.Add(i, played.Leaves.Frame.FreeBall);
            leaves.Add(i, isFair ? left.Worth : 0);
            var isLeft = isFair && played.Ruling.Points == 0;
            pots.Add(i, isLeft && left.LeavesPot);
            var now = context.Objective.Of(played.Leaves.Frame, left);
            value.Add(i, now);
            points.Add(i, left.PointsAfter(played.Ruling));
            if (!isFinal || i >= context.Bounded(LookedAt, 16))
                continue;
            var looked = isLeft ? context.Judge.Closely(played.Leaves, lines, left) : left;
            morePots.Add(i, (looked.LeavesPot ? 1 : 0) - (left.LeavesPot ? 1 : 0));
            moreValue.Add(i, isLeft ? context.Objective.Of(played.Leaves.Frame, looked) - now : 0);
        }
        // Of the fair strokes only.
        var more = fair.Total > 0 && morePots.Strokes > 0 ? morePots.Mean.Times(strokes / fair.Total) : default;
        var potLeft = pots.For(fair).Plus(more);
        var penalty = from.Frame.LeastPenalty;
        var chance = hits.Share;
        var floor = Math.Max(0.02, chance.Value);
        var given = new Estimate(penalty * (1 - chance.Value) / floor, penalty * chance.Error / (floor * floor), chance.Strokes);
        return new(
            AimOf(workspace, stroke, hit),
            WayOf(workspace, stroke, hit, named),
            new(chance, fair.Share, potLeft with { Value = Math.Clamp(potLeft.Value, 0, 1) }, free.For(missed)),
            new(leaves.For(fair), penalty, given),
            moreValue.Strokes > 0 ? value.Mean.Plus(moreValue.Mean) : value.Mean,
            points.Mean,
            placed.IsLevel,
            MirrorOf(hit)
        );
    }

    private MirrorAim? MirrorOf(EscapeHit hit) =>
        hit.OffJaw || hit.Cushions.Count == 0
            ? null
            : MirrorAim.Of(from.Layout.White.At, from.Layout.Balls[hit.Slot].At, hit.Cushions, context.Shape);

    private EscapeWay WayOf(Workspace workspace, in Stroke stroke, EscapeHit hit, Ball? named)
    {
        workspace.Play(from, stroke, default, named);
        var path = ShotPath.Points(workspace.Record, from.Layout.Balls.Count, ShotPath.Drawn)[0];
        var contact = workspace.Record.Events.FirstOrDefault(e => e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw && e.Ball == 0);
        return new(hit.Cushions, hit.OffJaw, path, contact.Kind == ShotEventKind.Strike ? null : contact.At);
    }

    private EscapeAim AimOf(Workspace workspace, Stroke stroke, EscapeHit hit) =>
        new(
            from.Layout.Balls[hit.Slot].Ball,
            PositionJudge.SeenOf(from, hit.Slot).Share,
            stroke,
            Reach.Of(from.Layout, stroke, context.Player),
            WindowDegrees: 2 * Math.Min(ToEdge(workspace, stroke, hit, 1), ToEdge(workspace, stroke, hit, -1)),
            SoftestPace: PaceThatHits(workspace, stroke, hit.Slot, -0.2),
            HardestPace: PaceThatHits(workspace, stroke, hit.Slot, 0.2)
        );

    /// <summary>Largest turn of the aim one way that still hits the ball off these cushions, degrees; by bisection.</summary>
    private double ToEdge(Workspace workspace, Stroke stroke, EscapeHit hit, int way)
    {
        const double most = 20;
        const int halvings = 8;
        bool Hits(double turn) =>
            windows.FirstHit(workspace, stroke with { AimDegrees = stroke.AimDegrees + way * turn }) is { } other && other.IsAs(hit);
        var (inside, outside) = (0.0, AimWindows.Step / 4);
        while (outside < most && Hits(outside))
            (inside, outside) = (outside, 2 * outside);
        for (var i = 0; i < halvings; i++)
        {
            var between = (inside + outside) / 2;
            (inside, outside) = Hits(between) ? (between, outside) : (inside, between);
        }
        return inside;
    }

    /// <summary>Softest or hardest pace that still hits the ball, by steps.</summary>
    private double PaceThatHits(Workspace workspace, Stroke stroke, int slot, double step)
    {
        var pace = stroke.Pace;
        while (
            pace + step is >= Pace.Slowest and <= HardestPace
            && windows.FirstHit(workspace, stroke with { Pace = pace + step }) is { } hit
            && hit.Slot == slot
        )
            pace += step;
        return pace;
    }
}
