using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;

namespace DeepBaize.Core.Advice.Break;

/// <summary>A break played out, with and without the control variate of its strokes.</summary>
/// <param name="Value">Of the table where the break ended, in the measure of the answer: a miss costs what it leaves.</param>
/// <param name="Controlled">
/// Value with a control variate: for each stroke, how much better it came out than the mean of independent replays is subtracted. That
/// mean is independent of the stroke played, so that nothing is added or taken away on the average, but what a lucky or an unlucky stroke
/// does to the sum.
/// </param>
/// <param name="Points">Points made, with the same control variate.</param>
/// <remarks>The reduction of variance of rollouts in games with dice, from memory; no source for snooker.</remarks>
public sealed record Playout(BreakResult Result, double Value, double Controlled, double Points);

/// <summary>
/// Plays breaks out from a table: the first shot as given, every later one by a quick look at the table as it then lies, which may also
/// turn to safety.
/// </summary>
public sealed class Playouts(SearchContext context, ShotSearch search, Situation from)
{
    /// <summary>Number of replays that estimate the mean outcome of a stroke.</summary>
    private const int Others = 4;

    /// <param name="errors">Of the break's strokes: each shot has a part of it.</param>
    /// <param name="index">Of the break in the stream.</param>
    /// <param name="mostShots">Number of shots after which the break is left; the table then counts as what it is reckoned at.</param>
    public Playout Of(Workspace workspace, Choice first, ErrorStream errors, int index, int mostShots = BreakPlay.MostShots)
    {
        var (value, luck, pointsLuck, shot) = (0.0, 0.0, 0.0, 0);
        Intention? Choose(Situation situation)
        {
            if (shot == 0)
                return BreakAdvice.IntentionOf(first);
            if (shot == mostShots)
                return null;
            var choice = search.Shallow(workspace, situation);
            var safety = workspace.SafetyValueOf(situation);
            if (choice is not null && choice.Value.Value >= safety)
                return BreakAdvice.IntentionOf(choice);
            value = safety;
            return null;
        }
        void Watch(Situation situation, Intention intention, PlayedStroke played)
        {
            // Judged before the workspace plays the same stroke with other errors.
            var came = ComesTo(workspace, played);
            value = came.Value;
            var mean = MeanOf(workspace, situation, intention, errors.Part(1000 + shot).Part(index));
            luck += came.Value - mean.Value;
            pointsLuck += came.Points - mean.Points;
            shot++;
        }
        var result = BreakPlay.Play(from, Choose, context.Player.Skill, context.Shape, k => errors.Part(k).At(index), Watch);
        return new(result, value, value - luck, result.Points - pointsLuck);
    }

    private (double Value, double Points) MeanOf(Workspace workspace, Situation from, in Intention intention, ErrorStream errors)
    {
        var (stroke, nominated) = (intention.Stroke, intention.Nominated);
        var scatter = workspace.ScatterOf(from.Layout, stroke, context.Player.Skill.Times(intention.ErrorFactor), intention.Pot);
        var (value, points) = (0.0, 0.0);
        foreach (var draws in errors.Set(Others))
        {
            var came = ComesTo(workspace, workspace.Play(from, stroke, scatter.Error(draws), nominated));
            (value, points) = (value + came.Value / Others, points + came.Points / Others);
        }
        return (value, points);
    }

    /// <summary>Value of the table that a stroke leaves, and the points that it made and promises.</summary>
    private static (double Value, double Points) ComesTo(Workspace workspace, PlayedStroke played)
    {
        var value = workspace.ValueOf(played.Leaves, out var outlook);
        return (value, played.Ruling.Points > 0 ? played.Ruling.Points + outlook.Best.Value : 0);
    }
}
