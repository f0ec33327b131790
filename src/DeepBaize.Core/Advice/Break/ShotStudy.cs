using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Break;

/// <summary>The side on which a pot is missed more often, and what that costs.</summary>
/// <param name="IsThick">Whether it is the thick side.</param>
/// <param name="Share">Of all strokes: its share of the misses sampled, times how often the stroke is missed.</param>
/// <param name="Cost">
/// By how much it is worth less than a stroke that scores, in the measure of the answer: with what it leaves to the other player.
/// </param>
/// <param name="LeavesPot">Of these misses, the share that leaves the other player a pot better than even.</param>
public sealed record LikeliestMiss(bool IsThick, Estimate Share, Estimate Cost, Estimate LeavesPot);

/// <summary>What can be turned at a stroke.</summary>
public enum Knob
{
    /// <summary>The line of aim.</summary>
    Line,

    /// <summary>The pace.</summary>
    Pace,

    /// <summary>Height of the tip.</summary>
    Height,

    /// <summary>Side of the tip.</summary>
    Side,
}

/// <summary>The knob that a stroke minds most: the one that, turned alone, fails within the fewest of the player's own errors.</summary>
/// <param name="Loss">Mean loss by an error of one standard deviation to either side, in the measure of the answer.</param>
/// <param name="Down">How far it may be turned down before the stroke fails: degrees to the right, steps of pace, or tips.</param>
/// <param name="Up">How far it may be turned up: degrees to the left, steps of pace, or tips.</param>
/// <param name="Error">The player's standard deviation, in the same unit.</param>
/// <remarks>
/// A stroke fails if it does not score, or leaves no pot that is better than even. Looked for up to three standard deviations.
/// </remarks>
public sealed record KnobWindow(Knob Knob, double Loss, double Down, double Up, double Error);

/// <summary>A second ball that the white runs into.</summary>
/// <param name="Fullness">How full it is struck: 1 full, 0 hardly.</param>
/// <param name="Speed">Of the approach, m/s.</param>
/// <param name="Moved">Balls that it moves, besides the one that is potted.</param>
/// <param name="Freed">Balls that had no way into a pocket, and have one then.</param>
/// <param name="Hit">Share of the strokes in which the white meets this ball.</param>
/// <param name="Sticks">Share in which the white stops within a ball of another one with no pot better than even.</param>
/// <param name="On">Share after which a pot better than even is on.</param>
public sealed record Cannon(Ball Ball, double Fullness, double Speed, int Moved, int Freed, Estimate Hit, Estimate Sticks, Estimate On);

/// <summary>What small errors do to a shot of a plan.</summary>
/// <param name="Miss">Null if no stroke was missed.</param>
/// <param name="Window">Null if the shot fails even without error.</param>
/// <param name="Cannon">Null if the white meets no second ball.</param>
public sealed record ShotStudy(LikeliestMiss? Miss, KnobWindow? Window, Cannon? Cannon)
{
    private const int Strokes = 64,
        LeastStrokes = 32;

    private static readonly ErrorStream Errors = ErrorStream.Named("plans: study");

    /// <summary>Plays a shot with the player's errors, and with each knob turned alone.</summary>
    public static ShotStudy Of(SearchContext context, Workspace workspace, Situation before, Choice choice)
    {
        var scatter = workspace.ScatterOf(before.Layout, choice.Stroke, context.Player.Skill.Times(choice.Reach.ErrorFactor), choice.Pot);
        var cannon = CannonOf(context, workspace, before, choice);
        var (miss, hit, sticks, on) = Played(context, workspace, before, choice, scatter, cannon?.Ball);
        return new(
            miss,
            WindowOf(workspace, before, choice, scatter),
            cannon is null ? null : cannon with { Hit = hit, Sticks = sticks, On = on }
        );
    }

    // ---- With errors -----------------------------------------------------------------------------------------------

    private static (LikeliestMiss? Miss, Estimate Hit, Estimate Sticks, Estimate On) Played(
        SearchContext context,
        Workspace workspace,
        Situation before,
        Choice choice,
        Scatter scatter,
        Ball? cannon
    )
    {
        Sums scores = new(),
            misses = new(),
            scored = new(),
            hit = new(),
            sticks = new(),
            on = new();
        (Sums All, Sums Value, Sums Pots)[] missed = [(new(), new(), new()), (new(), new(), new())];
        var potting = Spread.PottingDegrees(before.Layout, choice.Stroke, choice.Target.Cut, workspace.Simulator, workspace.Record);
        var target = cannon is { } ball ? before.Layout.SlotOf(ball) : -1;
        for (var i = 0; i < context.Bounded(Strokes, LeastStrokes); i++)
        {
            var played = workspace.Play(before, choice.Stroke, scatter.Error(Errors.At(i)), choice.Nominated);
            var isScored = played.Ruling.Points > 0;
            var isThick = !isScored && Spread.MissedThick(workspace.Record, choice.Target.Cut, potting);
            hit.Add(i, target > 0 && Meets(workspace.Record, target));
            var value = workspace.ValueOf(played.Leaves, out var outlook);
            scores.Add(i, isScored);
            misses.Add(i, !isScored);
            scored.Add(i, isScored ? value : 0);
            var hasPot = outlook.Best.Chance >= PositionJudge.Even;
            on.Add(i, isScored && hasPot);
            sticks.Add(i, isScored && !hasPot && IsByBall(played.Leaves.Layout));
            for (var side = 0; side < 2; side++)
            {
                var counts = !isScored && isThick == (side == 0);
                missed[side].All.Add(i, counts);
                missed[side].Value.Add(i, counts ? value : 0);
                missed[side].Pots.Add(i, counts && hasPot);
            }
        }
        var likeliest = missed[0].All.Total >= missed[1].All.Total ? 0 : 1;
        var (all, values, pots) = missed[likeliest];
        LikeliestMiss? miss =
            all.Total == 0 || scores.Total == 0
                ? null
                : new(
                    likeliest == 0,
                    // Few of the strokes are misses: how many are is known better from those that reported the chance.
                    all.For(misses).Times(choice.Odds.Chance.Times(-1, 1)),
                    scored.For(scores).Minus(values.For(all)),
                    pots.For(all)
                );
        return (miss, hit.Share, sticks.Share, on.Share);
    }

    /// <summary>Within a ball's width of another ball the white sticks by it.</summary>
    private static bool IsByBall(Layout layout) => layout.Balls.Skip(1).Any(b => b.Gap(layout.White.At) < 2 * BallRadius);

    private static bool Meets(ShotRecord record, int slot)
    {
        foreach (var e in record.Events)
            if (e.IsOfWhiteWithBall && e.Ball + e.Other == slot)
                return true;
        return false;
    }

    // ---- The knob that it minds most -------------------------------------------------------------------------------

    /// <summary>Steps in which the edge of a window is looked for, standard deviations, and their number.</summary>
    private const double Step = 0.5;

    private const int MostSteps = 6,
        Bisections = 4;

    /// <summary>
    /// The knob whose window is the narrowest, in standard deviations; of those that are equally wide, the one that loses most.
    /// </summary>
    private static KnobWindow? WindowOf(Workspace workspace, Situation before, Choice choice, Scatter scatter)
    {
        (bool Holds, double Value) With(Knob knob, double by)
        {
            var error = ErrorOf(knob, by, scatter);
            if (!Holds(choice.Stroke, error))
                return (false, 0);
            var played = workspace.Play(before, choice.Stroke, error, choice.Nominated);
            var value = workspace.ValueOf(played.Leaves, out var outlook);
            var next = played.Ruling.NextFrame;
            return (played.Ruling.Points > 0 && (next.IsOver || next.InHand || outlook.Best.Chance >= PositionJudge.Even), value);
        }
        var (holds, meant) = With(Knob.Pace, 0);
        if (!holds)
            return null;
        // Where the shot first fails, standard deviations; the whole range where it does not.
        double Edge(Knob knob, int sign)
        {
            var steps = 1;
            while (steps <= MostSteps && With(knob, sign * Step * steps).Holds)
                steps++;
            if (steps > MostSteps)
                return Step * MostSteps;
            var (good, bad) = (Step * (steps - 1), Step * steps);
            for (var k = 0; k < Bisections; k++)
            {
                var middle = (good + bad) / 2;
                (good, bad) = With(knob, sign * middle).Holds ? (middle, bad) : (good, middle);
            }
            return good;
        }
        double LossOf(Knob knob) => Math.Max(0, meant - (With(knob, 1).Value + With(knob, -1).Value) / 2);
        var worst = Enum.GetValues<Knob>()
            .Where(k => UnitOf(k, choice.Stroke, scatter) > 0)
            .Select(k => (Knob: k, Down: Edge(k, -1), Up: Edge(k, 1), Loss: LossOf(k)))
            .OrderBy(k => Math.Min(k.Down, k.Up))
            .ThenByDescending(k => k.Loss)
            .First();
        var unit = UnitOf(worst.Knob, choice.Stroke, scatter);
        return new(worst.Knob, worst.Loss, worst.Down * unit, worst.Up * unit, unit);
    }

    /// <summary>Whether the tip stays on the ball.</summary>
    private static bool Holds(in Stroke stroke, in StrokeError error)
    {
        var (side, height) = (Tip.Fraction(stroke.SideTips) + error.Side, Tip.Fraction(stroke.HeightTips) + error.Height);
        return side * side + height * height <= Strike.MiscueLimit * Strike.MiscueLimit;
    }

    private static StrokeError ErrorOf(Knob knob, double by, Scatter scatter) =>
        knob switch
        {
            Knob.Line => new(by * scatter.TurnDegrees, 0, 0, 0),
            Knob.Pace => new(0, by * scatter.Pace, 0, 0),
            Knob.Height => new(0, 0, 0, by * scatter.Height),
            _ => new(0, 0, by * scatter.Side, 0),
        };

    /// <summary>One standard deviation in the unit in which it is told: degrees, steps of pace, tips.</summary>
    private static double UnitOf(Knob knob, in Stroke stroke, Scatter scatter) =>
        knob switch
        {
            Knob.Line => scatter.TurnDegrees,
            Knob.Pace => Pace.OfCueSpeed(Pace.CueSpeed(stroke.Pace) * (1 + scatter.Pace)) - stroke.Pace,
            Knob.Height => scatter.Height / Tip.Fraction(1),
            _ => scatter.Side / Tip.Fraction(1),
        };

    // ---- Cannons ---------------------------------------------------------------------------------------------------

    /// <summary>A ball that is moved by less than this stays where it was, m.</summary>
    private const double IsMoved = 0.01;

    private static Cannon? CannonOf(SearchContext context, Workspace workspace, Situation before, Choice choice)
    {
        if (choice.Route.Balls.Count == 0 || choice.Route.Balls[0] == choice.Pot.Struck)
            return null;
        var target = choice.Route.Balls[0];
        workspace.Play(before, choice.Stroke, default, choice.Nominated);
        ShotEvent? contact = null;
        foreach (var e in workspace.Record.Events)
            if (e.IsOfWhiteWithBall && e.Ball + e.Other == target)
            {
                contact = e;
                break;
            }
        if (contact is not { } hit)
            return null;
        var (layout, after) = (before.Layout, choice.Leaves.Layout);
        var moved = 0;
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            if (slot != choice.Pot.Slot && after.SlotOf(layout.Balls[slot].Ball) is > 0 and var now)
                moved += layout.Balls[slot].At.DistanceTo(after.Balls[now].At) > IsMoved ? 1 : 0;
        PotLines linesBefore = new(layout, context.Shape),
            linesAfter = workspace.LinesOf(after);
        var freed = 0;
        for (var slot = 1; slot < after.Balls.Count; slot++)
            if (linesAfter.IsFree(slot) && layout.SlotOf(after.Balls[slot].Ball) is > 0 and var was && !linesBefore.IsFree(was))
                freed++;
        return new(
            layout.Balls[target].Ball,
            FullnessAt(workspace.Record, hit, target),
            hit.Speed,
            moved,
            freed,
            default,
            default,
            default
        );
    }

    /// <summary>How full the white meets a ball at rest: 1 − sin of the angle between its way and the line of centres.</summary>
    internal static double FullnessAt(ShotRecord record, in ShotEvent hit, int target)
    {
        var (way, ball) = (default(Vec2), default(Vec2));
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball == 0 && piece.End <= hit.Time + 1e-9)
                (way, ball) = (piece.VelocityAtEnd, piece.To);
        }
        var centres = CentreOf(record, hit, target) - ball;
        return way.Length == 0 || centres.Length == 0 ? 0 : 1 - Math.Abs(way.Unit.Left.Dot(centres.Unit));
    }

    private static Vec2 CentreOf(ShotRecord record, in ShotEvent hit, int target)
    {
        // The ball sets off from where it lay.
        foreach (var piece in record.Pieces)
            if (piece.Ball == target && piece.Start >= hit.Time - 1e-9)
                return piece.From;
        return hit.At;
    }
}
