using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Search;

/// <summary>Last stage of <see cref="ShotSearch"/>: estimates the chosen strokes from streams that had no part in the choice.</summary>
internal sealed class ChoiceReport(SearchContext context, StrokeSampler sampler, TwoPly twoPly)
{
    private const int FewestStrokes = 128;

    private static readonly ErrorStream Errors = ErrorStream.Named("shots: tell"),
        LookAheadErrors = ErrorStream.Named("shots: tell what follows");

    /// <summary>Returns the strokes with reported figures, in the order in which they were chosen.</summary>
    public List<Choice> Report(Situation from, List<RankedStroke> ranked, Effort effort)
    {
        var places = effort.LookAheadSamples;
        if (places == 0)
            return [.. ranked.Select(r => AsRanked(context, from, r))];
        var played = context.InParallel(ranked.Count, (workspace, i) => OddsOf(workspace, from, ranked[i].Trial, effort.MostReportStrokes));
        var outcomes = context.InParallel(ranked.Count * places, (workspace, k) =>
            twoPly.Draw(workspace, from, ranked[k / places].Trial, LookAheadErrors.At(k % places), isReported: true)
        );
        return
        [
            .. ranked.Select(
                (r, i) =>
                {
                    var (value, scored) = (new Sums(), new Sums());
                    for (var k = 0; k < places; k++)
                    {
                        var outcome = outcomes[i * places + k];
                        value.Add(k, outcome.Scores ? outcome.Value : 0);
                        scored.Add(k, outcome.Scores);
                    }
                    // The value of a success comes from few look-ahead samples, its probability and what a miss leaves from many more.
                    var (odds, missed) = played[i];
                    return WithFigures(r, from, odds, scored.Total > 0 ? value.For(scored) : Estimate.Exact(r.Mean), missed);
                }
            ),
        ];
    }

    private Choice WithFigures(RankedStroke r, Situation from, in ChoiceOdds odds, in Estimate scored, in Estimate missed)
    {
        var atStake = scored.Value - missed.Value;
        // Errors of the three figures that make it up: independent, since each has strokes of its own, or stands for other outcomes.
        var value = missed.Value + odds.Chance.Value * atStake;
        var error = Math.Sqrt(
            Math.Pow(odds.Chance.Error * atStake, 2)
                + Math.Pow(odds.Chance.Value * scored.Error, 2)
                + Math.Pow((1 - odds.Chance.Value) * missed.Error, 2)
        );
        return AsRanked(context, from, r) with
        {
            Odds = odds,
            Value = new(value, error, odds.Chance.Strokes),
            IfScores = scored.Value,
            IfMissed = missed.Value,
        };
    }

    private const int FirstStrokes = 128;
    private static readonly ErrorStream FirstErrors = ErrorStream.Named("shots: tell first");

    /// <summary>Returns strokes for a first answer: by a few strokes, none of which had a part in the choice.</summary>
    public List<Choice> ReportFirst(Situation from, IReadOnlyList<RankedStroke> ranked) =>
        context.InParallel(ranked.Count, (workspace, i) =>
        {
            var (value, scores, fouls, holds, miscues) = (new Sums(), new Sums(), new Sums(), new Sums(), new Sums());
            var scatter = sampler.ScatterOf(workspace, from, ranked[i].Trial);
            for (var k = 0; k < context.Bounded(FirstStrokes, 32); k++)
            {
                var error = scatter.Error(FirstErrors.Part(i).At(k));
                var outcome = sampler.Draw(workspace, from, ranked[i].Trial, error, out _);
                value.Add(k, outcome.Value);
                scores.Add(k, outcome.Scores);
                fouls.Add(k, outcome.Foul);
                holds.Add(k, outcome.Scores && outcome.Holds);
                miscues.Add(k, error.IsMiscue);
            }
            return AsRanked(context, from, ranked[i]) with
            {
                Odds = new(scores.Share, fouls.Share, holds.For(scores), miscues.Share),
                Value = value.Mean,
            };
        });

    /// <summary>The odds of a stroke, and the mean value of what its misses leave.</summary>
    private (ChoiceOdds Odds, Estimate Missed) OddsOf(Workspace workspace, Situation from, TrialStroke trial, int most)
    {
        var (scores, fouls, holds, miscues, misses, left) = (new Sums(), new Sums(), new Sums(), new Sums(), new Sums(), new Sums());
        var scatter = sampler.ScatterOf(workspace, from, trial);
        for (var next = FewestStrokes; ; next *= 2)
        {
            for (var i = scores.Strokes; i < next; i++)
            {
                var error = scatter.Error(Errors.At(i));
                var outcome = sampler.Draw(workspace, from, trial, error, out _);
                miscues.Add(i, error.IsMiscue);
                scores.Add(i, outcome.Scores);
                fouls.Add(i, outcome.Foul);
                holds.Add(i, outcome.Scores && outcome.Holds);
                misses.Add(i, !outcome.Scores);
                left.Add(i, outcome.Scores ? 0 : outcome.Value);
            }
            var odds = new ChoiceOdds(scores.Share, fouls.Share, holds.For(scores), miscues.Share);
            const double enough = SpreadEffort.EnoughError;
            if (next >= most || (odds.Chance.IsShareKnownTo(enough) && odds.Foul.IsShareKnownTo(enough)))
                return (odds, misses.Total > 0 ? left.For(misses) : Estimate.Exact(context.Objective.AfterMiss(from.Frame.AfterMiss)));
        }
    }

    /// <summary>Returns a stroke as a choice with the figures that ranked it, whose errors are not known.</summary>
    public static Choice AsRanked(SearchContext context, Situation from, RankedStroke r)
    {
        static Estimate Rough(double value) => new(value, Math.Abs(value), 0);
        return new(
            r.Trial.Of.Target,
            r.Trial.Stroke,
            r.Trial.Reach,
            new(Rough(r.Chance), Rough(r.Foul), Rough(r.Holds)),
            Rough(r.Expected),
            r.Trial.Outcome.Ruling.Points,
            r.Trial.Outcome,
            r.Trial.Next
        )
        {
            IfScores = r.Mean,
            IfMissed = r.Missed,
            Route = RouteOf(context, from, r.Trial),
        };
    }

    private static Route RouteOf(SearchContext context, Situation from, TrialStroke trial)
    {
        var record = new ShotRecord();
        trial.Stroke.Play(new Simulator(context.Shape), from.Layout, record);
        return Route.Of(record);
    }
}
