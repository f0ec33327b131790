using DeepBaize.Core.Play;
using DeepBaize.Core.Players;

namespace DeepBaize.Core.Search;

/// <summary>One sampled outcome of a stroke.</summary>
/// <param name="Pots">Whether the ball goes into the intended pocket, foul or not.</param>
/// <param name="Value">Gain of the stroke and value of the table after it, if it scores.</param>
/// <param name="Holds">Whether the next pot is better than even.</param>
/// <param name="LookAheadGain">
/// Value of the next stroke found by search, less the evaluation of the place; 0 if there was no search.
/// </param>
internal readonly record struct Sampled(bool Pots, bool Scores, bool Foul, double Value, bool Holds, double LookAheadGain = 0);

/// <summary>A stroke with its estimates from sampled errors, used to rank it.</summary>
/// <param name="Mean">Mean value of the outcomes that score.</param>
/// <param name="Doubt">Deduction for a stroke that asks for more than it has been shown to be worth.</param>
internal sealed record RankedStroke(
    TrialStroke Trial,
    double Value,
    double Chance,
    double Foul,
    double Holds,
    double Mean,
    double Doubt = 0
);

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
    public Sampled Draw(Workspace workspace, Situation from, TrialStroke trial, in StrokeError error, out PlayedStroke played)
    {
        played = workspace.Play(from, trial.Stroke, error, trial.Of.Nominated);
        var pots = workspace.Simulator.PocketOf(trial.Of.Pot.Slot) == trial.Of.Cut.Pocket;
        if (played.Ruling.Points <= 0)
            return new(pots, false, played.Ruling.IsFoul, 0, false);
        var next = workspace.Judge(played.Leaves);
        return new(
            pots,
            true,
            false,
            context.Evaluation.Gain(from.Frame, played.Ruling.NextFrame) + next.Value,
            next.Chance >= BetterThanEven || played.Ruling.NextFrame.IsOver
        );
    }

    /// <summary>Plays the stroke once for each of the draws, and ranks it by the outcomes and the quick estimate.</summary>
    public RankedStroke Sample(Workspace workspace, Situation from, TrialStroke trial, StandardDraws[] draws)
    {
        var scatter = ScatterOf(workspace, from, trial);
        var outcomes = new Sampled[draws.Length];
        for (var i = 0; i < draws.Length; i++)
            outcomes[i] = Draw(workspace, from, trial, scatter.Error(draws[i]), out _);
        return Summarise(trial, outcomes);
    }

    private RankedStroke Summarise(TrialStroke trial, Sampled[] outcomes)
    {
        var (pots, scores, fouls, holds, value) = (0, 0, 0, 0, 0.0);
        foreach (var one in outcomes)
        {
            if (one.Pots)
                pots++;
            if (one.Foul)
                fouls++;
            if (!one.Scores)
                continue;
            scores++;
            value += one.Value;
            if (one.Holds)
                holds++;
        }
        // The quick estimate knows how often the ball goes in, not how often the white follows it.
        var goesIn = (EstimateWeight * trial.Chance + Math.Max(pots, scores)) / (EstimateWeight + outcomes.Length);
        var chance = goesIn * (pots == 0 ? 1 : (double)scores / Math.Max(pots, scores));
        var mean = scores == 0 ? 0 : value / scores;
        return WithMean(new(trial, 0, chance, (double)fouls / outcomes.Length, scores == 0 ? 0 : (double)holds / scores, 0), mean);
    }

    /// <summary>Returns the stroke with another mean of the outcomes that score, and its value anew.</summary>
    public RankedStroke WithMean(RankedStroke ranked, double mean)
    {
        var evaluation = context.Evaluation;
        var value = ranked.Chance * mean - (1 - ranked.Chance) * evaluation.MissCost - ranked.Foul * evaluation.FoulCost;
        return ranked with { Mean = mean, Value = value - ranked.Trial.Penalty * Math.Abs(value) - ranked.Doubt };
    }
}
