using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Learning;

/// <summary>What went wrong with a stroke.</summary>
public enum StrokeFault
{
    /// <summary>The object ball was hit too full: direction or sighting.</summary>
    Thick,

    /// <summary>The object ball was hit too thin: direction or sighting.</summary>
    Thin,

    /// <summary>The white left to the left of what was meant, where no ball is to be met.</summary>
    Left,

    /// <summary>The white left to the right of what was meant, where no ball is to be met.</summary>
    Right,

    /// <summary>The cue was too fast.</summary>
    Hard,

    /// <summary>The cue was too slow.</summary>
    Soft,

    /// <summary>The tip was too high.</summary>
    High,

    /// <summary>The tip was too low.</summary>
    Low,

    /// <summary>Unmeant left-hand side.</summary>
    LeftSide,

    /// <summary>Unmeant right-hand side.</summary>
    RightSide,
}

/// <summary>One thing that may have gone wrong.</summary>
/// <param name="Amount">By how much, positive: degrees, a share of the speed, or a fraction of the ball's radius.</param>
/// <param name="Chance">That it was this, of all single causes.</param>
/// <param name="Error">The whole error with it, in absolute units: what must have been played.</param>
public sealed record LikelyCause(StrokeFault Cause, double Amount, double Chance, StrokeError Error);

/// <summary>A figure with the interval that holds it in 90 of 100 cases.</summary>
public sealed record Range90(double Value, double Low, double High)
{
    /// <summary>Mean and interval of values that weigh differently.</summary>
    /// <param name="sorted">The least first; one of them weighs something.</param>
    public static Range90 Of(IReadOnlyList<(double Value, double Weight)> sorted)
    {
        var total = sorted.Sum(s => s.Weight);
        double At(double share)
        {
            var sum = 0.0;
            foreach (var (value, weight) in sorted)
                if ((sum += weight) >= share * total)
                    return value;
            return sorted[^1].Value;
        }
        return new(sorted.Sum(s => s.Value * s.Weight) / total, At(0.05), At(0.95));
    }
}

/// <summary>What went wrong with one stroke, from where the balls ended.</summary>
/// <param name="Causes">The likeliest first.</param>
/// <param name="Turn">Error of the direction, degrees; then of pace, side and height, in absolute units.</param>
/// <param name="Explains">
/// Chance, 0–1, that the stroke that was meant, played with this player's errors, did this: against anything else that may have happened.
/// </param>
/// <param name="IsUsual">Whether it lies within the player's usual spread, so that nothing should be changed.</param>
/// <param name="Left">How far from where they were seen the balls end with the likeliest cause, m.</param>
public sealed record Diagnosis(
    IReadOnlyList<LikelyCause> Causes,
    Range90 Turn,
    Range90 Pace,
    Range90 Side,
    Range90 Height,
    double Explains,
    bool IsUsual,
    double Left
)
{
    /// <summary>Pairs of the error's parts, by their place, that leave the same ends here: which of them it was cannot be told.</summary>
    public IReadOnlyList<(int One, int Other)> NotApart { get; init; } = [];

    /// <summary>Causes less likely than this are not told.</summary>
    private const double LeastChance = 0.01;

    /// <summary>
    /// What a cause by itself means: it is off by far more than as a rule, and the rest by much less, or by rather less where more went
    /// wrong. In standard deviations.
    /// </summary>
    private const double Mistake = 2.5,
        Rest = 0.2,
        LooseRest = 0.7;

    /// <summary>Errors tried from which the likeliest are refined, and number of errors that the answer is averaged over.</summary>
    private const int Starts = 3,
        Samples = 1536,
        Block = 128,
        ScreenedDraws = 256;
    private const double ScreenedStep = 0.4;

    /// <summary>Prior odds of something else, by which balls lie anywhere.</summary>
    private const double SomethingElse = 0.02;

    /// <summary>
    /// A stroke within this of the one meant, in standard deviations of all its parts together, is a usual one (90 of 100).
    /// </summary>
    private const double UsualSpread = 2.79;

    private static readonly ErrorStream Draws = ErrorStream.Named("diagnosis");

    /// <summary>Returns what explains what was seen.</summary>
    public static Diagnosis Of(ObservedStroke observed, Skill skill, TableShape shape, Workers workers)
    {
        var deviations = observed.DeviationsOf(skill, shape);
        ErrorFit Fit() => new(new StrokeReplay(observed, shape), deviations);
        var modes = Modes(Fit, deviations.Length, workers);
        var count = workers.Bounded(Samples, 512) / Block;
        var proposal = new ErrorProposal(modes, deviations.Length);
        var samples = workers.InParallel(count, b => proposal.Sample(Fit(), Draws, b * Block, Block)).SelectMany(s => s).ToList();
        return new Weighing(samples, deviations, skill.Evenness).Tell(observed, shape) with
        {
            NotApart = ErrorPart.NotApart(Fit().InformationAt(modes[0])),
        };
    }

    /// <summary>What it means for a stroke that one part of its error has a sign.</summary>
    public static StrokeFault FaultOf(int part, int sign, ObservedStroke observed, TableShape shape)
    {
        if (part == ErrorPart.Pace)
            return sign > 0 ? StrokeFault.Hard : StrokeFault.Soft;
        if (part == ErrorPart.Height)
            return sign > 0 ? StrokeFault.High : StrokeFault.Low;
        if (part == ErrorPart.Side)
            return sign > 0 ? StrokeFault.RightSide : StrokeFault.LeftSide;
        AimLine At(double turn) =>
            AimLine.Of(observed.Layout, observed.Meant with { AimDegrees = observed.Meant.AimDegrees + turn }, new(shape), new());
        var line = At(0);
        if (double.IsInfinity(line.Distance))
            return sign > 0 ? StrokeFault.Left : StrokeFault.Right;
        // A small turn to that side makes the first contact fuller, or not.
        const double small = 0.05;
        var turned = At(sign * small);
        return !double.IsInfinity(turned.Distance) && turned.CutDegrees < line.CutDegrees ? StrokeFault.Thick : StrokeFault.Thin;
    }

    private static double[] SpreadOf(int mistake, int parts, double rest = Rest) =>
        [
            .. Enumerable
                .Range(0, parts)
                .Select(k =>
                    k == mistake ? Mistake
                    : k == ErrorPart.Rebound ? 1
                    : rest
                ),
        ];

    /// <summary>The likeliest errors under each cause, and under none in particular.</summary>
    private static List<ErrorMode> Modes(Func<ErrorFit> fit, int parts, Workers workers)
    {
        var screened = fit().Screen(ScreenedDraws, ScreenedStep);
        var jobs = new List<(double[] Start, double[] Spread)>();
        for (var cause = -1; cause < ErrorPart.Usual; cause++)
        {
            double[] spread = cause < 0 ? [.. Enumerable.Repeat(1.5, parts)] : SpreadOf(cause, parts);
            // The best few of those that this cause could have made.
            var starts = screened
                .Take(60)
                .Select((z, rank) => (z, Badness: rank / 10.0 + z.Select((v, k) => Math.Pow(v / spread[k], 2)).Sum() / 4))
                .OrderBy(s => s.Badness)
                .Select(s => s.z)
                .Take(Starts);
            jobs.AddRange(starts.Select(s => (s, spread)));
        }
        var modes = workers.InParallel(jobs.Count, i => fit().Refine(jobs[i].Start, jobs[i].Spread));
        return ErrorProposal.Distinct(modes);
    }

    /// <summary>What the sampled errors weigh under one assumption or another.</summary>
    private sealed class Weighing(List<SampledError> samples, double[] deviations, double evenness)
    {
        private int Parts => deviations.Length;

        public Diagnosis Tell(ObservedStroke observed, TableShape shape)
        {
            var scale = samples.Max(s => s.LogLikelihood);
            double[] Weights(Func<double[], double> logPrior) =>
                [.. samples.Select(s => Math.Exp(s.LogLikelihood - scale + logPrior(s.Error) - s.LogDensity))];
            var whole = Weights(LogPrior);
            var causes = new List<LikelyCause>();
            for (var part = 0; part < ErrorPart.Usual; part++)
            {
                var (spread, loose) = (SpreadOf(part, Parts), SpreadOf(part, Parts, LooseRest));
                var weights = Weights(z => Math.Log(0.5 * Math.Exp(LogNormal(z, spread)) + 0.5 * Math.Exp(LogNormal(z, loose))));
                foreach (var sign in new[] { 1, -1 })
                    if (CauseOf(weights, part, sign, observed, shape) is { } cause)
                        causes.Add(cause);
            }
            var sum = causes.Sum(c => c.Chance);
            causes =
            [
                .. causes
                    .Select(c => c with { Chance = sum > 0 ? c.Chance / sum : 0 })
                    .Where(c => c.Chance >= LeastChance)
                    .OrderByDescending(c => c.Chance),
            ];
            var evidence = scale + Math.Log(Math.Max(whole.Average(), 1e-300));
            var elsewhere =
                Math.Log(SomethingElse) + observed.Seen.Balls.Sum(b => -Math.Log(b.IsOnTable ? Dimensions.Length * Dimensions.Width : 7));
            var explains = 1 / (1 + Math.Exp(Math.Min(700, elsewhere - evidence)));
            var nearest = samples.Zip(whole).Where(p => p.Second > 0).OrderByDescending(p => p.Second).Take(8).ToList();
            var size = nearest.Count == 0 ? double.PositiveInfinity : nearest.Min(p => Math.Sqrt(p.First.Error.Sum(z => z * z)));
            return new(
                causes,
                RangeOf(whole, ErrorPart.Turn),
                RangeOf(whole, ErrorPart.Pace),
                RangeOf(whole, ErrorPart.Side),
                RangeOf(whole, ErrorPart.Height),
                explains,
                IsUsual: explains > 0.5 && size < UsualSpread,
                Left: nearest.Count == 0 ? samples.Min(s => s.Distance) : nearest.Min(p => p.First.Distance)
            );
        }

        private double LogPrior(double[] z) => SharedFactor.LogDensity(z.Sum(v => v * v), z.Length, evenness);

        private static double LogNormal(double[] z, double[] spread)
        {
            var sum = 0.0;
            for (var k = 0; k < z.Length; k++)
                sum -= 0.5 * Math.Pow(z[k] / spread[k], 2) + Math.Log(spread[k]);
            return sum;
        }

        private LikelyCause? CauseOf(double[] weights, int part, int sign, ObservedStroke observed, TableShape shape)
        {
            var (total, mean) = (0.0, new double[Parts]);
            for (var i = 0; i < samples.Count; i++)
            {
                if (Math.Sign(samples[i].Error[part]) != sign)
                    continue;
                total += weights[i];
                for (var k = 0; k < Parts; k++)
                    mean[k] += weights[i] * samples[i].Error[k] * deviations[k];
            }
            if (!(total > 0))
                return null;
            for (var k = 0; k < Parts; k++)
                mean[k] /= total;
            var error = new StrokeError(mean[ErrorPart.Turn], mean[ErrorPart.Pace], mean[ErrorPart.Side], mean[ErrorPart.Height]);
            return new(FaultOf(part, sign, observed, shape), Math.Abs(mean[part]), total / samples.Count, error);
        }

        private Range90 RangeOf(double[] weights, int part)
        {
            var sorted = samples
                .Zip(weights, (s, w) => (Value: s.Error[part] * deviations[part], Weight: w))
                .OrderBy(s => s.Value)
                .ToList();
            return weights.Sum() > 0 ? Range90.Of(sorted) : new(0, double.NegativeInfinity, double.PositiveInfinity);
        }
    }
}
