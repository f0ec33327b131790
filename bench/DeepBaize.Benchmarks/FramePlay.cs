using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Benchmarks;

/// <summary>What a policy plays.</summary>
/// <param name="From">The table with the white where it is placed, if it is in hand.</param>
/// <param name="Pot">The pot that is meant; null of safeties and escapes.</param>
internal readonly record struct Played(Situation From, Stroke Stroke, Ball? Nominated, Pot? Pot);

/// <summary>A way to choose strokes in a frame.</summary>
internal abstract class FramePolicy
{
    /// <summary>The stroke to play; null if there is none.</summary>
    public abstract Played? Choose(Situation from, Player player, Player rival);
}

/// <summary>The advice at a quick look: the pot and the best safeties, each by some strokes, in the measure that is asked for.</summary>
internal sealed class QuickAdvice(TableShape shape, PlanTarget target) : FramePolicy
{
    private const int Safeties = 4,
        Strokes = 16;
    private static readonly ErrorStream Weighing = ErrorStream.Named("frames: weigh");
    private static readonly FairGate Alone = new(1) { WorkShare = 0.1 };

    public override Played? Choose(Situation from, Player player, Player rival)
    {
        var context = new SearchContext(new(from.Frame, player, shape, new(target), rival), Alone, default);
        var (workspace, strokes) = (new Workspace(context), new SafetyStrokes(context));
        var potFrom = InHand.Placed(context, from);
        var choice = new ShotSearch(context).Shallow(workspace, potFrom);
        var (best, bestValue) = (default(Played?), double.NegativeInfinity);
        if (choice is not null)
            (best, bestValue) = (new(potFrom, choice.Stroke, choice.Nominated, choice.Pot), choice.Value.Value);
        // A pot that nobody would leave.
        if (choice is not null && choice.Chance > 0.85)
            return best;
        var safeFrom = from.Frame.InHand ? InHand.PlacedForSafety(context, from, strokes) : from;
        var tried = new List<TriedSafety>();
        foreach (var (slot, offset) in strokes.Ways(safeFrom).Take(33))
            tried.AddRange(strokes.Play(workspace, safeFrom, slot, offset, coarse: true));
        foreach (var one in tried.OrderByDescending(t => t.Value).Take(Safeties))
        {
            var ball = safeFrom.Layout.Balls[one.Slot].Ball;
            var value = strokes.MeanOf(workspace, safeFrom, one.Stroke, ball, Weighing, Strokes);
            if (value > bestValue)
                (best, bestValue) = (new(safeFrom, one.Stroke, ball, null), value);
        }
        if (best is not null)
            return best;
        var escape = EscapeSearch.Find(context, from, (_, _) => { }).FirstOrDefault();
        return escape is null ? null : new(from, escape.Aim.Stroke, escape.Aim.Ball, null);
    }
}

/// <summary>The easiest pot above even, rolled in; else a quarter-ball clip of the nearest ball on; hidden, the mirror's aim.</summary>
internal sealed class PlainAdvice(TableShape shape) : FramePolicy
{
    public override Played? Choose(Situation from, Player player, Player rival)
    {
        var layout = from.Layout;
        var lines = new PotLines(layout, shape);
        var (best, chance) = (default(Pot?), 0.5);
        foreach (var line in lines.Lines)
            if (
                from.Frame.MayPlay(lines.BallIn(line.Slot))
                && lines.From(line, layout.White.At, player.Skill) is { } pot
                && pot.Chance > chance
            )
                (best, chance) = (new(line.Slot, line.Pocket), pot.Chance);
        if (best is { } target)
        {
            var cut = Cut.Of(layout, target, shape);
            var stroke = new Stroke(0, 0, 0, Pace.Medium, 0);
            stroke = stroke with { ElevationDegrees = Reach.ButtFor(layout, stroke with { AimDegrees = cut.AimDegrees }, player) };
            if (PotAim.Find(new(layout, cut, shape), cut, stroke, null, PotAim.Roughly) is { } aim)
                return new(from, stroke with { AimDegrees = aim }, layout.Balls[target.Slot].Ball, target);
        }
        if (SafetyQuality.Clip(from) is { } clip)
            return new(from, clip, from.Layout.Balls[from.OnSlots().MinBy(s => layout.Balls[s].At.DistanceTo(layout.White.At))].Ball, null);
        var slot = from.OnSlots().MinBy(s => layout.Balls[s].At.DistanceTo(layout.White.At));
        foreach (var order in MirrorAim.Orders(2))
            if (MirrorAim.Of(layout.White.At, layout.Balls[slot].At, order, shape) is { } mirror)
                return new(from, new(mirror.AimDegrees, 0, 0, Pace.Medium, 3), layout.Balls[slot].Ball, null);
        return null;
    }
}

/// <summary>A table of a frame that was played, as it was reckoned then.</summary>
/// <param name="Turn">Who was at the table.</param>
/// <param name="Win">The chance to win that was reckoned for that player.</param>
/// <param name="Before">What the stroke before was.</param>
/// <param name="Chance">Of the best pot, quickly.</param>
/// <param name="Played">What was played.</param>
/// <param name="Points">Made by it.</param>
/// <param name="Outlook">Of the table.</param>
internal sealed record Moment(
    Frame Frame,
    int Turn,
    double Win,
    double ByLead,
    MomentKind Before,
    double Chance,
    MomentKind Played,
    bool IsFoul,
    int Points,
    double[] Features,
    Outlook Outlook
);

/// <summary>What a stroke was.</summary>
internal enum MomentKind
{
    Start,
    Potted,
    Missed,
    Safety,
    Foul,
}

/// <summary>Plays whole frames, each player by a policy, and remembers every table.</summary>
internal static class FramePlay
{
    private const int MostStrokes = 400;

    /// <summary>A frame from the break-off, or from a table; the winner, and what was seen on the way.</summary>
    /// <param name="seed">Of the errors.</param>
    public static (int Winner, List<Moment> Moments) Play(
        Situation from,
        FramePolicy[] policies,
        Player[] players,
        TableShape shape,
        int seed
    )
    {
        var (random, situation, moments) = (new Random(seed), from, new List<Moment>());
        var before = MomentKind.Start;
        var judge = new PositionJudge(0, players[0], players[1], shape, PlanPreferences.Default);
        FrameObjective[] objectives = [new(0, players[0], players[1]), new(1, players[1], players[0])];
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        for (var n = 0; n < MostStrokes; n++)
        {
            var frame = situation.Frame;
            if (frame.AwaitsLot)
                (situation, frame) = (situation.PlaysFirst(random.Next(2)), situation.PlaysFirst(0).Frame);
            frame = situation.Frame;
            if (frame.IsOver)
                return (frame.Winner, moments);
            // Nobody plays on for seven snookers.
            if (Math.Abs(frame.Lead) > frame.PointsLeft + 7 * Values.LeastPenalty)
                return (frame.Lead > 0 ? frame.Turn : 1 - frame.Turn, moments);
            var turn = frame.Turn;
            var lines = new PotLines(situation.Layout, shape);
            var outlook = judge.Of(situation, lines);
            var win = objectives[turn].Of(frame, outlook);
            if (policies[turn].Choose(situation, players[turn], players[1 - turn]) is not { } chosen)
                return (1 - turn, moments);
            var played = Struck(chosen, players[turn], shape, random, simulator, record);
            var kind =
                played.Ruling.IsFoul ? MomentKind.Foul
                : played.Ruling.Points > 0 ? MomentKind.Potted
                : chosen.Pot is not null ? MomentKind.Missed
                : MomentKind.Safety;
            moments.Add(
                new(
                    frame,
                    turn,
                    win,
                    frame.Lead,
                    before,
                    outlook.Best.Chance,
                    chosen.Pot is null ? MomentKind.Safety : MomentKind.Potted,
                    played.Ruling.IsFoul,
                    played.Ruling.Points,
                    frame.InHand ? [] : SafetyEase.Features(chosen.From, lines, outlook.Sight, outlook.Lie),
                    outlook
                )
            );
            before = kind;
            situation = played.Leaves;
        }
        return (-1, moments);
    }

    /// <summary>Returns the table after a stroke with random errors.</summary>
    public static Situation PlayStroke(Played chosen, Player player, TableShape shape, Random random) =>
        Struck(chosen, player, shape, random, new(shape), new()).Leaves;

    private static PlayedStroke Struck(
        Played chosen,
        Player player,
        TableShape shape,
        Random random,
        Simulator simulator,
        ShotRecord record
    )
    {
        var layout = chosen.From.Layout;
        var reach = Reach.Of(layout, chosen.Stroke, player);
        var scatter = Scatter.Of(layout, chosen.Stroke, player.Skill.Times(reach.ErrorFactor), simulator, record, chosen.Pot);
        scatter.Error(StandardDraws.Draw(random)).Play(simulator, layout, chosen.Stroke, record);
        return chosen.From.Play(simulator, record, chosen.Nominated, shape);
    }
}
