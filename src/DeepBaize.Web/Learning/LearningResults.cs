using System.ComponentModel;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Learning;

/// <summary>A figure with its 90 % interval.</summary>
public sealed record RangeResult(double Value, double Low, double High)
{
    public static RangeResult Of(Range90 range) => new(range.Value, range.Low, range.High);
}

/// <summary>One thing that may have gone wrong.</summary>
/// <param name="Paths">The stroke as it must have been then: the ways of the balls that moved.</param>
public sealed record CauseResult(
    [property: Description("thick, thin, pace, height, side, or direction where no ball is to be met.")] string Cause,
    [property: Description("hard, soft, high, low, left or right; null of thick and thin.")] string? Direction,
    double Amount,
    [property: Description("degrees, share (of the cue's speed) or radius (a fraction of the ball's).")] string Unit,
    [property: Description("That it was this, of all single causes, 0 to 1.")] double Chance,
    [property: Description("Of side and height: in tips. Of pace: in steps of pace. Else null.")] double? InPlayersUnits,
    IReadOnlyList<PathEntry> Paths
);

/// <summary>The whole error of the stroke.</summary>
public sealed record StrokeErrorResult(
    [property: Description("Of the direction, degrees to the left.")] RangeResult TurnDegrees,
    [property: Description("As a share of the cue's speed.")] RangeResult Pace,
    [property: Description("As a fraction of the ball's radius, to the right.")] RangeResult Side,
    [property: Description("As a fraction of the ball's radius, upwards.")] RangeResult Height
);

/// <summary>What faults of a stroke are called on the wire.</summary>
internal static class FaultNames
{
    private static readonly string[] Parts = ["direction", "pace", "side", "height"];

    public static (string Name, string? Direction, string Unit) Of(StrokeFault fault) =>
        fault switch
        {
            StrokeFault.Thick => ("thick", null, "degrees"),
            StrokeFault.Thin => ("thin", null, "degrees"),
            StrokeFault.Left => ("direction", "left", "degrees"),
            StrokeFault.Right => ("direction", "right", "degrees"),
            StrokeFault.Hard => ("pace", "hard", "share"),
            StrokeFault.Soft => ("pace", "soft", "share"),
            StrokeFault.High => ("height", "high", "radius"),
            StrokeFault.Low => ("height", "low", "radius"),
            StrokeFault.LeftSide => ("side", "left", "radius"),
            _ => ("side", "right", "radius"),
        };

    /// <summary>An amount in tips or in steps of pace; null of a direction.</summary>
    /// <param name="pace">The error of the pace, a share with its sign.</param>
    public static double? InPlayersUnits(string unit, double amount, double pace, in Stroke meant) =>
        unit switch
        {
            "radius" => amount / Tip.Fraction(1),
            "share" => Math.Abs(Pace.OfCueSpeed(Pace.CueSpeed(meant.Pace) * Math.Max(0.02, 1 + pace)) - meant.Pace),
            _ => null,
        };

    public static IReadOnlyList<IReadOnlyList<string>> PairsOf(IReadOnlyList<(int One, int Other)> pairs) =>
        [.. pairs.Select(p => (string[])[Parts[p.One], Parts[p.Other]])];
}

/// <summary>What attempts at one stroke have in common in one part of it.</summary>
public sealed record CommonErrorResult(
    [property: Description("thick, thin, pace, height, side, or direction where no ball is to be met.")] string Cause,
    [property: Description("hard, soft, high, low, left or right; null of thick and thin.")] string? Direction,
    [property: Description("Average, with its sign: to the left, harder, to the right or higher is positive.")] RangeResult Error,
    [property: Description("degrees, share (of the cue's speed) or radius (a fraction of the ball's).")] string Unit,
    [property: Description("The average of side and height in tips, of pace in steps of pace, without a sign; else null.")]
        double? InPlayersUnits,
    [property: Description("Whether that is clear, and large enough to matter beside the usual scatter.")] bool EachTime,
    [property: Description("How widely it scatters, against what is usual for the player.")] ScatterSize Scatter
);

/// <summary>What several attempts at one stroke have in common.</summary>
public sealed record ShotVerdictResult(
    [property: Description("Number of attempts that were read.")] int Attempts,
    [property: Description("Direction, pace, side and height.")] IReadOnlyList<CommonErrorResult> Parts,
    [property: Description("Pairs of parts (direction, pace, side, height) that leave the same ends here: which it was cannot be told.")]
        IReadOnlyList<IReadOnlyList<string>> NotApart,
    [property: Description("Attempts that nothing near the stroke explains, by their place in the list; left out.")]
        IReadOnlyList<int> Unexplained
)
{
    public static ShotVerdictResult Of(ShotVerdict verdict, Stroke meant) =>
        new(verdict.Attempts, [.. verdict.Parts.Select(p => PartOf(p, meant))], FaultNames.PairsOf(verdict.NotApart), verdict.Unexplained);

    private static CommonErrorResult PartOf(CommonError part, in Stroke meant)
    {
        var (name, direction, unit) = FaultNames.Of(part.Fault);
        var own = FaultNames.InPlayersUnits(unit, Math.Abs(part.Error.Value), part.Error.Value, meant);
        return new(name, direction, RangeResult.Of(part.Error), unit, own, part.IsEachTime, part.Scatter);
    }
}

/// <summary>What went wrong with a stroke.</summary>
public sealed record DiagnosisResult(
    [property: Description("The likeliest first.")] IReadOnlyList<CauseResult> Causes,
    StrokeErrorResult Error,
    [property: Description(
        "Chance that a stroke near the one meant did this, 0 to 1; near 0 a ball was elsewhere, or something else happened."
    )]
        double Explains,
    [property: Description("Whether it lies within the player's usual spread: nothing should be changed.")] bool IsUsual,
    [property: Description("How far the balls end from where they were seen with the likeliest error, m.")] double Left,
    [property: Description("Pairs of parts (direction, pace, side, height) that leave the same ends here: which it was cannot be told.")]
        IReadOnlyList<IReadOnlyList<string>> NotApart
)
{
    public static DiagnosisResult Of(Diagnosis found, ObservedStroke observed, TableShape shape) =>
        new(
            [.. found.Causes.Select(c => CauseOf(c, observed, shape))],
            new(RangeResult.Of(found.Turn), RangeResult.Of(found.Pace), RangeResult.Of(found.Side), RangeResult.Of(found.Height)),
            Math.Round(found.Explains, 4),
            found.IsUsual,
            found.Left,
            FaultNames.PairsOf(found.NotApart)
        );

    private static CauseResult CauseOf(LikelyCause c, ObservedStroke observed, TableShape shape)
    {
        var (name, direction, unit) = FaultNames.Of(c.Cause);
        var own = FaultNames.InPlayersUnits(unit, c.Amount, c.Error.Pace, observed.Meant);
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        c.Error.Play(simulator, observed.Layout, observed.Meant, record);
        return new(name, direction, c.Amount, unit, Math.Round(c.Chance, 4), own, PathEntry.Of(observed.Layout, record, simulator.Count));
    }
}

/// <summary>A figure that was learnt.</summary>
public sealed record EstimateResult(
    string Name,
    double Value,
    double Low,
    double High,
    [property: Description("By how much less it is in doubt than before, 0 to 1; near 0 the strokes say nothing about it.")] double Narrowed
);

/// <summary>What strokes tell of a table.</summary>
public sealed record TableLearntResult(
    [property: Description("With 90 % intervals.")] IReadOnlyList<EstimateResult> Estimates,
    [property: Description("How far the balls ended from where the table as it was taken for would have them, on the average, m.")]
        double MissBefore,
    [property: Description(
        "How far they ended from where the table as it was learnt would have them, m: the player's own errors are left."
    )]
        double MissAfter,
    [property: Description("How far off a typical shot's ends are predicted, m, root mean square.")] double Knowledge,
    [property: Description("Of each stroke, whether its white stopped in the 90 % area that the others predict.")] IReadOnlyList<bool> Held,
    [property: Description("Strokes that do not fit, by their place in the list.")] IReadOnlyList<int> Strange
);

/// <summary>What a player's strokes are off by on the average, with 90 % intervals; units as of an error.</summary>
public sealed record HabitsResult(
    RangeResult TurnDegrees,
    RangeResult Pace,
    RangeResult Side,
    RangeResult Height,
    [property: Description("By how many degrees the butt is higher than it was taken to lie; null where too few strokes with side tell.")]
        RangeResult? ButtDegrees
);

/// <summary>What strokes tell of a player.</summary>
public sealed record PlayerLearntResult(
    [property: Description("The parts of a skill in its units, with 90 % intervals.")] IReadOnlyList<EstimateResult> Estimates,
    HabitsResult Habits,
    [property: Description("What the player calls five, on the standard scale, by the habit of pace.")] double PaceOfFive,
    [property: Description("How high the butt lies with nothing in the way, degrees; null where nothing tells.")] double? NaturalElevation,
    [property: Description("Strokes that nothing near the one meant explains, by their place in the list; left out.")]
        IReadOnlyList<int> Unexplained
);

/// <summary>A stroke that would tell much.</summary>
/// <param name="Towards">Where the line of aim ends: at a ball or at the cushion, m.</param>
public sealed record TeachingStrokeResult(
    TeachingLine Line,
    IReadOnlyList<BallEntry> Balls,
    StrokeEntry Stroke,
    StrikeRequest Strike,
    PlaceResult Towards
);

/// <summary>The strokes that would tell most now, the best first, and how well the table is known.</summary>
public sealed record TeachResult(
    IReadOnlyList<TeachingStrokeResult> Strokes,
    [property: Description("How far off a typical shot's ends are predicted, m, root mean square.")] double Knowledge,
    [property: Description("With nothing seen, m.")] double KnowledgeBefore,
    IReadOnlyList<EstimateResult> Estimates
);

/// <summary>What it would bring to be better at one part by a fifth.</summary>
/// <param name="Points">More points of a visit to an open table, less what the miss at its end leaves.</param>
/// <param name="Routines">Families of routines that train it, the nearest first.</param>
/// <param name="Frames">Share of frames that are won more, 0 to 1, against a player as he is now: reckoned.</param>
public sealed record PartGainResult(string Part, Estimate Points, Estimate Frames, IReadOnlyList<RoutineFamily> Routines);

/// <summary>What to practise, the most worth first.</summary>
/// <param name="Visit">Points of a break from an open table as the player is now.</param>
public sealed record GainResult(Estimate Visit, double Better, IReadOnlyList<PartGainResult> Parts)
{
    public static GainResult Of(PracticeGain gain) =>
        new(
            gain.Visit,
            PracticeGain.Better,
            [.. gain.Parts.Select(p => new PartGainResult(p.Part.Name, p.Points, p.Frames, FamiliesOf(p.Part.Name)))]
        );

    /// <summary>Common practice, no source.</summary>
    private static IReadOnlyList<RoutineFamily> FamiliesOf(string part) =>
        part switch
        {
            "pace" => [RoutineFamily.Pace, RoutineFamily.Position],
            "height" => [RoutineFamily.Spin],
            "allowance" => [RoutineFamily.Spin, RoutineFamily.Potting],
            "sighting" or "rest" => [RoutineFamily.Potting],
            "cushion" => [RoutineFamily.Safety],
            _ => [RoutineFamily.Cueing],
        };
}
