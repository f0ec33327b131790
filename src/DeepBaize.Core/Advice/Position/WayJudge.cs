using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Position;

/// <summary>Later stages of <see cref="WaySearch"/>: a way's odds from sampled strokes, where it ends, and what is on next.</summary>
internal sealed class WayJudge(SearchContext context, WayQuestion question, WayTrials trials)
{
    // Events of the simulator spent on one way: a deterministic stand-in for time.
    private const int EventsToScreen = 3_000,
        EventsToRank = 16_000,
        EventsToReport = 40_000;

    // Numbers of sampled strokes.
    private const int Fewest = 64,
        MostToScreen = 128,
        MostToRank = 512,
        FewestToReport = 256,
        MostToReport = 2048;

    private static readonly ErrorStream ScreeningErrors = ErrorStream.Named("ways: sift"),
        FirstErrors = ErrorStream.Named("ways: tell first"),
        RankingErrors = ErrorStream.Named("ways: rank"),
        ReportingErrors = ErrorStream.Named("ways: tell"),
        StickingErrors = ErrorStream.Named("ways: stick");

    /// <summary>Ways into the pockets as the balls lie now: every way that runs into a ball is compared with them.</summary>
    private readonly Lazy<PotLines> _lines = new(() => new(question.Layout, question.Shape));

    /// <summary>Number of strokes that say how likely the white stays at a ball it runs into.</summary>
    private const int ToStick = 256;

    public Way Screened(Workspace workspace, WayTrial trial) =>
        Judge(workspace, trial, events => SpreadEffort.Of(Math.Min(MostToScreen, EventsToScreen / events)), ScreeningErrors);

    /// <summary>For an answer on the way: by as many strokes as screened it, none of which did.</summary>
    public Way ToldSoFar(Workspace workspace, WayTrial trial) =>
        Judge(workspace, trial, events => SpreadEffort.Of(Math.Min(MostToScreen, EventsToScreen / events)), FirstErrors);

    public Way Ranked(Workspace workspace, WayTrial trial) =>
        Judge(workspace, trial, events => SpreadEffort.Of(Math.Min(MostToRank, EventsToRank / events)), RankingErrors);

    public Way Reported(Workspace workspace, WayTrial trial) =>
        Judge(
            workspace,
            trial,
            events => new(FewestToReport, Math.Clamp(EventsToReport / events, FewestToReport, MostToReport), SpreadEffort.EnoughError),
            ReportingErrors
        );

    /// <param name="effort">Number of strokes, given the events of the simulator that one of them takes.</param>
    private Way Judge(Workspace workspace, WayTrial trial, Func<int, SpreadEffort> effort, ErrorStream stream)
    {
        var stroke = trial.Stroke;
        var reach = Reach.Of(question.Layout, stroke, question.Player);
        var skill = question.Player.Skill.Times(reach.ErrorFactor);
        var scatter = Scatter.Of(question.Layout, stroke, skill, workspace.Coarse, workspace.Record, question.Pot);
        var (simulator, record) = trials.Play(workspace, stroke, default);
        var usual = effort(Math.Max(1, simulator.EventCount));
        var samples = usual with
        {
            Fewest = Math.Max(Fewest, context.Bounded(usual.Fewest, Fewest)),
            Most = Math.Max(Fewest, context.Bounded(usual.Most, Fewest)),
        };
        var arrival = Arrival.Of(record, stroke.ToStrike(), question.Shape) ?? default;
        var run = new WayRun(arrival, trial.Route, AlongBall(record), reach, RunsInto.Of(record, simulator, question.Layout, question.Pot));
        var contact = Contacts.First(record)?.At ?? question.Layout.White.At;
        var drawing = new WayDrawing(ShotPath.Points(record, question.Layout.Balls.Count)[0], contact);
        // Ways are judged side by side; one of them is played by one worker.
        var spread = Spread.Sample(
            new(question.Layout, stroke, WayAim.Of(question, trial.Part).Cut, skill, question.Shape, question.Goal),
            Workers.Single(context.Cancel),
            samples,
            stream,
            outlines: false
        );
        context.Count(spread.Samples);
        var odds = new WayOdds(spread.Odds.Pot, spread.Odds.Both, spread.Odds.InOff, spread.Odds.Kiss, spread.Odds.Miscue);
        return new(stroke, trial.Part, odds, run, EndsOf(workspace, trial, scatter), drawing);
    }

    private WayEnds EndsOf(Workspace workspace, WayTrial trial, Scatter scatter)
    {
        var (stroke, pace) = (trial.Stroke, scatter.Pace);
        var exact = OutcomeOf(workspace, stroke, default);
        var (longer, shorter) = (OutcomeOf(workspace, stroke, new(0, pace, 0, 0)), OutcomeOf(workspace, stroke, new(0, -pace, 0, 0)));
        double Moves(in StrokeError one, in StrokeError other) =>
            Math.Max(
                OutcomeOf(workspace, stroke, one).White.DistanceTo(exact.White),
                OutcomeOf(workspace, stroke, other).White.DistanceTo(exact.White)
            );
        var sensitivity = new Sensitivity(
            Direction: Moves(new(scatter.TurnDegrees, 0, 0, 0), new(-scatter.TurnDegrees, 0, 0, 0)),
            Pace: Math.Max(longer.White.DistanceTo(exact.White), shorter.White.DistanceTo(exact.White)),
            Height: Moves(new(0, 0, 0, scatter.Height), new(0, 0, 0, -scatter.Height)),
            Side: Moves(new(0, 0, scatter.Side, 0), new(0, 0, -scatter.Side, 0))
        );
        return new(trial.IsMet, trial.Distance, exact, longer, shorter, sensitivity);
    }

    private Outcome OutcomeOf(Workspace workspace, in Stroke stroke, in StrokeError error)
    {
        var (simulator, record) = trials.Play(workspace, stroke, error);
        return new(simulator.At(0), !simulator.IsOnTable(0), question.Goal.IsMet(record, simulator, question.Layout), null);
    }

    /// <summary>Adds what is on next: played without error, long and short.</summary>
    public Way WithNext(Workspace workspace, Way way)
    {
        Outcome Next(Outcome outcome, in StrokeError error)
        {
            var (after, _) = trials.Play(workspace, way.Stroke, error);
            if (!after.IsOnTable(0))
                return outcome;
            var rest = after.Left(except: question.Pot.Slot);
            if (rest.Count < 2)
                return outcome;
            var on = Snooker.OnAfter(question.Layout.Balls[question.Pot.Slot].Ball, rest);
            var next = TableReading.Likeliest(
                Layout.OfRest(rest),
                new(0, 0, 0, Pace.Medium, question.Player.NaturalElevation),
                question.Player,
                question.Shape,
                // After a red a colour is on, and after a colour a red.
                ball => on.Any(slot => rest[slot].Ball == ball),
                context.Cancel
            );
            return outcome with { Next = next };
        }
        var skill = question.Player.Skill.Times(way.Run.Reach.ErrorFactor);
        var (ends, pace) = (way.Ends, Scatter.Of(question.Layout, way.Stroke, skill, workspace.Coarse, workspace.Record).Pace);
        return way with
        {
            // A worker of its own: this one is already at work.
            Opens = PackOpening.Of(question.Layout, way.Stroke, skill, question.Shape, Workers.Single(context.Cancel)),
            Run = way.Run with { Into = Studied(workspace, way, skill) },
            Ends = ends with
            {
                Exact = Next(ends.Exact, default),
                Long = Next(ends.Long, new(0, pace, 0, 0)),
                Short = Next(ends.Short, new(0, -pace, 0, 0)),
            },
        };
    }

    /// <summary>What running into a ball comes to: how likely the white stays, and which balls it frees for which pockets.</summary>
    private RunsInto? Studied(Workspace workspace, Way way, Skill skill)
    {
        if (way.Run.Into is not { } into)
            return null;
        var scatter = Scatter.Of(question.Layout, way.Stroke, skill, workspace.Coarse, workspace.Record, question.Pot);
        var stays = new List<bool>();
        for (var i = 0; i < context.Bounded(ToStick, Fewest); i++)
        {
            var (simulator, record) = trials.Play(workspace, way.Stroke, scatter.Error(StickingErrors.At(i)));
            stays.Add(RunsInto.Of(record, simulator, question.Layout, question.Pot) is { Stays: true } met && met.Slot == into.Slot);
        }
        var (after, _) = trials.Play(workspace, way.Stroke, default);
        return into with { Sticks = Sums.Of(stays, s => s ? 1 : 0).Mean, Freed = FreedBy(after) };
    }

    private List<FreedBall> FreedBy(Simulator after)
    {
        // Where the white lies does not matter: the ways are those of the other balls.
        var left = after.IsOnTable(0) ? after.Left(except: question.Pot.Slot) : [];
        if (left.Count < 2)
            return [];
        var before = _lines.Value;
        var now = new PotLines(Layout.OfRest(left), question.Shape, before);
        var freed = new List<FreedBall>();
        for (var slot = 1; slot < now.Count; slot++)
            if (now.IsFree(slot) && question.Layout.SlotOf(now.BallIn(slot)) is > 0 and var was && !before.IsFree(was))
            {
                var open = new List<Pocket>();
                foreach (ref readonly var line in now.Lines)
                    if (line.Slot == slot && line.IsOpen)
                        open.Add(line.Pocket);
                freed.Add(new(now.BallIn(slot), [.. open.Distinct()]));
            }
        return freed;
    }

    /// <summary>
    /// Slot of the ball on whose line (within a ball's width) the white runs in at the end, ahead of it or behind; −1 if none.
    /// </summary>
    private int AlongBall(ShotRecord record)
    {
        const double longEnough = 0.25,
            nearEnough = 1.2;
        var last = record.Pieces.LastOrDefault(p => p.Ball == 0);
        if (last == default)
            return -1;
        var end = last.To;
        if (last.From.DistanceTo(end) < longEnough)
            return -1;
        var along = (end - last.From).Unit;
        var (best, slot) = (2 * BallRadius, -1);
        for (var i = 1; i < question.Layout.Balls.Count; i++)
        {
            if (i == question.Pot.Slot || i == question.Goal.Meant)
                continue;
            var ball = question.Layout.Balls[i].At - end;
            var across = Math.Abs(ball.Cross(along));
            if (across < best && ball.Length < nearEnough)
                (best, slot) = (across, i);
        }
        return slot;
    }
}
