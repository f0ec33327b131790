using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;

namespace DeepBaize.Core.Advice.Break;

/// <summary>A break played out, with and without the control variate of its strokes.</summary>
/// <param name="Value">What it made, in the measure of the target.</param>
/// <param name="Controlled">
/// Value with a control variate: for each stroke, how much better it came out than the mean of independent replays is subtracted. That
/// mean is independent of the stroke played, so that nothing is added or taken away on the average, but what a lucky or an unlucky stroke
/// does to the sum.
/// </param>
/// <remarks>The reduction of variance of rollouts in games with dice, from memory; no source for snooker.</remarks>
public sealed record Playout(BreakResult Result, double Value, double Controlled);

/// <summary>Plays breaks out from a table: the first shot as given, every later one by a quick look at the table as it then lies.</summary>
public sealed class Playouts(SearchContext context, ShotSearch search, Situation from)
{
    /// <summary>Number of replays that estimate the mean outcome of a stroke.</summary>
    private const int Others = 8;

    /// <param name="errors">Of the break's strokes: each shot has a part of it.</param>
    /// <param name="index">Of the break in the stream.</param>
    /// <param name="mostShots">Number of shots after which the break is left; the evaluation of the table then counts as made.</param>
    public Playout Of(Workspace workspace, Choice first, ErrorStream errors, int index, int mostShots = BreakPlay.MostShots)
    {
        var (value, luck, shot) = (0.0, 0.0, 0);
        Intention? Choose(Situation situation)
        {
            if (shot == mostShots)
            {
                value += workspace.Judge(situation).Value;
                return null;
            }
            var choice = shot == 0 ? first : search.Shallow(workspace, situation);
            return choice is null ? null : BreakAdvice.IntentionOf(choice);
        }
        void Watch(Situation situation, Intention intention, PlayedStroke played)
        {
            value += context.Evaluation.OutcomeOf(situation.Frame, played.Ruling);
            // Judged before the workspace plays the same stroke with other errors.
            luck += ComesTo(workspace, situation, played) - MeanOf(workspace, situation, intention, errors.Part(1000 + shot).Part(index));
            shot++;
        }
        var result = BreakPlay.Play(from, Choose, context.Player.Skill, context.Shape, k => errors.Part(k).At(index), Watch);
        return new(result, value, value - luck);
    }

    private double MeanOf(Workspace workspace, Situation from, in Intention intention, ErrorStream errors)
    {
        var (stroke, nominated) = (intention.Stroke, intention.Nominated);
        var scatter = workspace.ScatterOf(from.Layout, stroke, context.Player.Skill.Times(intention.ErrorFactor), intention.Pot);
        return errors.Set(Others).Average(luck => ComesTo(workspace, from, workspace.Play(from, stroke, scatter.Error(luck), nominated)));
    }

    /// <summary>What a stroke came to, and what the place where it left the white promises.</summary>
    private double ComesTo(Workspace workspace, Situation before, PlayedStroke played)
    {
        var outcome = context.Evaluation.OutcomeOf(before.Frame, played.Ruling);
        return played.Ruling.Points > 0 ? outcome + workspace.Judge(played.Leaves).Value : outcome;
    }
}
