using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>What a stroke reaches, as far as one setting is told apart from the next.</summary>
/// <param name="Potted">Whether the chosen ball goes in; null without a pot.</param>
/// <param name="InOff">The pocket that the white goes into.</param>
/// <param name="First">Slot of the ball that the white meets first, or −1: told where no ball is to be potted.</param>
/// <param name="Ball">Slot of the first ball that the white runs into after that, or −1.</param>
/// <param name="Gap">Slots of the two balls between which it passes, where it runs into none.</param>
/// <param name="Cushions">Number of cushions that it comes off, where it neither runs into a ball nor passes between two.</param>
/// <param name="DoesGoal">Whether it does what is asked; null if nothing is.</param>
public readonly record struct Reached(
    bool? Potted,
    Pocket? InOff,
    int First,
    int Ball,
    (int One, int Other)? Gap,
    int Cushions,
    bool? DoesGoal
);

/// <summary>Settings of one knob next to one another that reach one thing.</summary>
/// <param name="From">Steps of pace, tips, or degrees; of the aim against the one that is set.</param>
/// <param name="What">What is reached; null where no aim pots the ball.</param>
public sealed record LadderRung(double From, double To, Reached? What)
{
    /// <summary>Middle of the settings.</summary>
    public double Middle => (From + To) / 2;
}

/// <summary>
/// A ladder of one's own: one knob of a stroke swept from end to end, everything else as set, and where what it reaches turns from one
/// thing into the next. Without errors of the player.
/// </summary>
public static class KnobLadder
{
    /// <summary>Usual steps between settings: paces, tips, degrees. What lies between two settings may be overlooked.</summary>
    private const double PaceStep = 0.2,
        TipStep = 0.05,
        ButtStep = 1,
        AimStep = 0.25;

    /// <summary>How far to either side of the aim that is set a ladder of aims goes by itself, degrees.</summary>
    private const double MostAim = 5;

    /// <summary>Edges between rungs are found to this share of a step.</summary>
    public const double Accuracy = 0.04;

    /// <summary>So many strokes in a row are one piece of work.</summary>
    private const int PerJob = 6;

    /// <summary>The settings that are swept where none are asked for.</summary>
    public static FanRange UsualRange(StrokeKnob knob, in Stroke stroke)
    {
        var (least, most) = knob == StrokeKnob.Aim ? (-MostAim, MostAim) : knob.Limits(stroke);
        return new(
            least,
            most,
            knob switch
            {
                StrokeKnob.Pace => PaceStep,
                StrokeKnob.Elevation => ButtStep,
                StrokeKnob.Aim => AimStep,
                _ => TipStep,
            }
        );
    }

    /// <summary>Returns the rungs from the lowest setting up.</summary>
    public static IReadOnlyList<LadderRung> Of(VariantQuestion question, StrokeKnob knob, FanRange range, Workers workers)
    {
        if (knob == StrokeKnob.Aim)
            question = question with { KeepsAim = true };
        if (knob == StrokeKnob.Elevation)
            question = question with { Butt = null };
        var stroke = question.Stroke;
        var set = knob == StrokeKnob.Aim ? stroke.AimDegrees : 0;
        var settings = range.Settings().Where(v => knob.Allows(stroke, set + v)).ToList();
        if (settings.Count == 0)
            return [];
        Reached? At(StrokeVariants variants, double v) =>
            variants.AimedAnew(knob.Turned(stroke, set + v)) is { } s ? ReachedBy(question, variants, s) : null;

        var jobs = (settings.Count + PerJob - 1) / PerJob;
        var reached = workers
            .InParallel(
                jobs,
                job =>
                {
                    var variants = new StrokeVariants(question);
                    return settings.Skip(job * PerJob).Take(PerJob).Select(v => At(variants, v)).ToList();
                }
            )
            .SelectMany(r => r)
            .ToList();
        var tried = settings.Zip(reached, (v, what) => new Tried(v, what)).ToList();
        // What lies between two settings that reach one thing may be something else: the middle of every rung is tried too.
        for (var round = 0; round < Rounds; round++)
        {
            tried = WithEdges(tried, Accuracy * range.Step, At, () => new(question), workers);
            var middles = RungsOf(tried).Where(r => r.To > r.From).Select(r => r.Middle).ToList();
            var found = workers.InParallel(middles.Count, i => At(new(question), middles[i]));
            var count = RungsOf(tried).Count;
            tried = [.. tried.Concat(middles.Zip(found, (v, what) => new Tried(v, what))).OrderBy(t => t.Setting)];
            if (RungsOf(tried).Count == count)
                break;
        }
        return RungsOf(WithEdges(tried, Accuracy * range.Step, At, () => new(question), workers));
    }

    /// <summary>Adds the last setting that still reaches one thing and the first that reaches the next, wherever it changes.</summary>
    private static List<Tried> WithEdges(
        List<Tried> tried,
        double accuracy,
        Func<StrokeVariants, double, Reached?> at,
        Func<StrokeVariants> variants,
        Workers workers
    )
    {
        while (true)
        {
            var turns = Enumerable
                .Range(1, tried.Count - 1)
                .Where(i => tried[i].What != tried[i - 1].What && tried[i].Setting - tried[i - 1].Setting > accuracy)
                .ToList();
            if (turns.Count == 0)
                return tried;
            var edges = workers.InParallel(
                turns.Count,
                i =>
                {
                    var played = variants();
                    return EdgeOf(tried[turns[i] - 1], tried[turns[i]], accuracy, v => at(played, v));
                }
            );
            // Between two things there may be a third: then there are turns left.
            tried = [.. tried.Concat(edges.SelectMany(e => e)).DistinctBy(t => t.Setting).OrderBy(t => t.Setting)];
        }
    }

    /// <summary>The last setting that reaches what the lower one does, and the next after it that does not.</summary>
    private static Tried[] EdgeOf(Tried low, Tried high, double accuracy, Func<double, Reached?> at)
    {
        while (high.Setting - low.Setting > accuracy)
        {
            var middle = (low.Setting + high.Setting) / 2;
            var tried = new Tried(middle, at(middle));
            (low, high) = tried.What == low.What ? (tried, high) : (low, tried);
        }
        return [low, high];
    }

    /// <summary>A setting that was played, and what it reaches.</summary>
    private readonly record struct Tried(double Setting, Reached? What);

    /// <summary>Largest number of times that the middles of the rungs are tried.</summary>
    private const int Rounds = 1;

    /// <summary>Settings in order that reach one thing are a rung.</summary>
    private static List<LadderRung> RungsOf(List<Tried> tried)
    {
        var rungs = new List<LadderRung>();
        foreach (var (setting, what) in tried)
            if (rungs.Count > 0 && rungs[^1].What == what)
                rungs[^1] = rungs[^1] with { To = setting };
            else
                rungs.Add(new(setting, setting, what));
        return rungs;
    }

    private static Reached ReachedBy(VariantQuestion question, StrokeVariants variants, in Stroke stroke)
    {
        // What the other balls do once the white lies still is nothing to a ladder, unless it is asked for.
        var target = question.Cut?.Pot.Slot ?? -1;
        var (after, record) = variants.Play(stroke, question.Goal is null ? () => IsDone(variants.Record, variants.After, target) : null);
        var end = StrokeEnd.Of(record, after, question.Layout);
        var ball = end.Route.Balls.Count > 0 ? end.Route.Balls[0] : -1;
        var isOpen = ball < 0 && end.WhitePocket is null;
        return new(
            Potted: question.Cut is { } cut ? after.PocketOf(cut.Pot.Slot) == cut.Pocket : null,
            InOff: end.WhitePocket,
            First: question.Cut is null ? end.First : -1,
            Ball: ball,
            Gap: isOpen ? end.Gap : null,
            Cushions: isOpen && end.Gap is null ? end.Route.Cushions.Count : 0,
            DoesGoal: question.Goal?.IsMet(record, after, question.Layout)
        );
    }

    /// <summary>Whether the white has stopped or gone in, and the ball to be potted has gone in: looked at after each event.</summary>
    private static bool IsDone(ShotRecord record, Simulator after, int target) =>
        record.Events.Count > 0
        && record.Events[^1] is var last
        && (
            last is { Kind: ShotEventKind.Stop or ShotEventKind.Pot, Ball: 0 }
            || (target > 0 && last is { Kind: ShotEventKind.Pot } && last.Ball == target)
        )
        && (target < 0 || !after.IsOnTable(target))
        && (!after.IsOnTable(0) || record.Events.FindLast(e => e.Ball == 0 || e.Other == 0) is { Kind: ShotEventKind.Stop });
}
