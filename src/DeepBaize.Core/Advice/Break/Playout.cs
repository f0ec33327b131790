using DeepBaize.Core.Play;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;

namespace DeepBaize.Core.Advice.Break;

/// <summary>
/// A break played out: the first shot as planned, every later one by a quick look at the table as it then lies. What it made is told with
/// the luck taken out of it.
/// </summary>
/// <param name="Value">What it made, in the measure of the target.</param>
/// <param name="WithoutLuck">
/// The same less the luck of its strokes: for each, by how much it came out better than the mean of the same stroke over other errors. That
/// mean is independent of the stroke played, so that nothing is added or taken away on the average, but what a lucky or an unlucky stroke
/// does to the sum.
/// </param>
/// <remarks>The reduction of variance of rollouts in games with dice, from memory; no source for snooker.</remarks>
internal sealed record Playout(BreakResult Result, double Value, double WithoutLuck)
{
    /// <summary>So many strokes tell what a stroke comes to on the average.</summary>
    private const int Others = 16;

    /// <param name="errors">Of the break's strokes: each shot has a part of it.</param>
    /// <param name="index">Of the break in the stream.</param>
    public static Playout Of(
        SearchContext context,
        ShotSearch search,
        Bench bench,
        Situation from,
        Choice first,
        ErrorStream errors,
        int index
    )
    {
        var (value, luck, shot) = (0.0, 0.0, 0);
        Choice? choice = first;
        var result = BreakPlay.Play(
            from,
            situation =>
            {
                choice = shot == 0 ? first : search.Glance(bench, situation);
                return choice is null ? null : BreakAdvice.IntentionOf(choice);
            },
            context.Player.Skill,
            context.Shape,
            (k, skill) => errors.Part(k).At(index, skill),
            (situation, intention, played) =>
            {
                value += context.Worth.OutcomeOf(situation.Frame, played.Ruling);
                var mean = 0.0;
                foreach (var error in errors.Part(1000 + shot).Part(index).Set(Others, context.Player.Skill.Times(intention.ErrorFactor)))
                    mean +=
                        ComesTo(context, bench, situation, bench.Play(situation, intention.Stroke, error, intention.Nominated)) / Others;
                luck += ComesTo(context, bench, situation, played) - mean;
                shot++;
            }
        );
        return new(result, value, value - luck);
    }

    /// <summary>What a stroke came to, and what the place where it left the white promises.</summary>
    private static double ComesTo(SearchContext context, Bench bench, Situation before, Played played)
    {
        var outcome = context.Worth.OutcomeOf(before.Frame, played.Ruling);
        return played.Ruling.Points > 0 ? outcome + bench.Judge(played.Leaves).Value : outcome;
    }
}
