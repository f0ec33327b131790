using DeepBaize.Core.Play;
using DeepBaize.Core.Players;

namespace DeepBaize.Core.Search;

/// <summary>One sampled outcome of a stroke.</summary>
/// <param name="Pots">Whether the ball goes into the intended pocket, foul or not.</param>
/// <param name="Value">Value of the table that it leaves, in the measure of the answer: a miss costs what it leaves.</param>
/// <param name="Holds">Whether the next pot is better than even.</param>
/// <param name="LookAheadGain">
/// Value of the next stroke found by search, less the evaluation of the place; 0 if there was no search.
/// </param>
internal readonly record struct Sampled(bool Pots, bool Scores, bool Foul, double Value, bool Holds, double LookAheadGain = 0);

/// <summary>A stroke with its estimates from sampled errors, used to rank it.</summary>
/// <param name="Value">Expected value, with what ranks beside it taken off: the miss that is minded, simplicity, doubt.</param>
/// <param name="Mean">Mean value of the outcomes that score.</param>
/// <param name="Missed">Mean value of those that do not.</param>
/// <param name="Doubt">Deduction for a stroke that asks for more than it has been shown to be worth.</param>
internal sealed record RankedStroke(
    TrialStroke Trial,
    double Value,
    double Chance,
    double Foul,
    double Holds,
    double Mean,
    double Missed,
    double Doubt = 0
)
{
    /// <summary>Expected value.</summary>
    public double Expected => Chance * Mean + (1 - Chance) * Missed;
}

/// <summary>Plays a trial stroke with a player's errors and sums up what comes of it.</summary>
internal sealed class StrokeSampler(SearchContext context)
{
    /// <summary>Number of sampled strokes that the quick estimate of a pot counts as.</summary>
    public const int EstimateWeight = 40;

    private const double BetterThanEven = 0.5;

    /// <summary>Returns the scatter of the stroke at the player's reach.</summary>
    public Scatter ScatterOf(Workspace workspace, Situation from, TrialStroke trial) =>
        workspace.ScatterOf(from.Layout, trial.Stroke, context.Player.Skill.Times(trial.Reach.ErrorFactor), trial.Of.Pot);

    /// <summary>Plays the stroke once with an error.</summary>
    /// <param name="looksAtMisses">
    /// Whether the table that a miss leaves is looked at; otherwise it counts as a usual miss of the same ruling, which is quicker.
    /// </param>
    public Sampled Draw(
        Workspace workspace,
        Situation from,
        TrialStroke trial,
        in StrokeError error,
        out PlayedStroke played,
        bool looksAtMisses = true
    )
    {
        played = workspace.Play(from, trial.Stroke, error, trial.Of.Nominated);
        var pots = workspace.Simulator.PocketOf(trial.Of.Pot.Slot) == trial.Of.Cut.Pocket;
        if (!looksAtMisses && played.Ruling.Points == 0)
            return new(pots, false, played.Ruling.IsFoul, context.Objective.AfterMiss(played.Leaves.Frame), false);
        var value = workspace.ValueOf(played.Leaves, out var next);
        var scores = played.Ruling.Points > 0;
        return new(
            pots,
            scores,
            played.Ruling.IsFoul,
            value,
            scores && (next.Best.Chance >= BetterThanEven || played.Ruling.NextFrame.IsOver)
        );
    }

    /// <summary>Plays the stroke once for each of the draws, and ranks it by the outcomes and the quick estimate.</summary>
    /// <param name="looksAtMisses">Whether the tables that misses leave are looked at, or count as usual misses.</param>
    public RankedStroke Sample(Workspace workspace, Situation from, TrialStroke trial, StandardDraws[] draws, bool looksAtMisses = false)
    {
        var scatter = ScatterOf(workspace, from, trial);
        var outcomes = new Sampled[draws.Length];
        for (var i = 0; i < draws.Length; i++)
            outcomes[i] = Draw(workspace, from, trial, scatter.Error(draws[i]), out _, looksAtMisses);
        return Summarise(from, trial, outcomes);
    }

    private RankedStroke Summarise(Situation from, TrialStroke trial, Sampled[] outcomes)
    {
        var (pots, scores, fouls, holds, value, missed) = (0, 0, 0, 0, 0.0, 0.0);
        foreach (var one in outcomes)
        {
            if (one.Pots)
                pots++;
            if (one.Foul)
                fouls++;
            if (!one.Scores)
            {
                missed += one.Value;
                continue;
            }
            scores++;
            value += one.Value;
            if (one.Holds)
                holds++;
        }
        // The quick estimate knows how often the ball goes in, not how often the white follows it.
        var goesIn = (EstimateWeight * trial.Chance + Math.Max(pots, scores)) / (EstimateWeight + outcomes.Length);
        var chance = goesIn * (pots == 0 ? 1 : (double)scores / Math.Max(pots, scores));
        var usual = context.Objective.AfterMiss(from.Frame.AfterMiss);
        // Few of the outcomes are misses: what a usual one leaves counts as some of them.
        var miss = (missed + UsualMissWeight * usual) / (outcomes.Length - scores + UsualMissWeight);
        var mean = scores == 0 ? usual : value / scores;
        return WithMean(new(trial, 0, chance, (double)fouls / outcomes.Length, scores == 0 ? 0 : (double)holds / scores, 0, miss), mean);
    }

    private const double UsualMissWeight = 3;

    /// <summary>Returns the stroke with another mean of the outcomes that score, and its value anew.</summary>
    public RankedStroke WithMean(RankedStroke ranked, double mean)
    {
        ranked = ranked with { Mean = mean };
        // Simplicity and doubt are shares of what is at stake.
        var value = ranked.Expected - (1 - ranked.Chance) * context.MissMinded;
        var penalty = ranked.Trial.Penalty * ranked.Chance * Math.Abs(mean - ranked.Missed);
        return ranked with { Value = value - penalty - ranked.Doubt };
    }
}
