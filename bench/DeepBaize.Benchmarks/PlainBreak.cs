using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;

namespace DeepBaize.Benchmarks;

/// <summary>
/// A break played with plain random errors that had no part in what is told: the first shot as given, each later one by a quick look.
/// </summary>
/// <param name="Value">In the measure of the target.</param>
/// <param name="Shots">Played, the last included.</param>
internal readonly record struct PlainBreak(int Points, double Value, int Shots)
{
    public static PlainBreak Play(SearchContext context, ShotSearch search, Workspace workspace, Situation from, Choice first, int seed)
    {
        var (random, value, shots) = (new Random(seed), 0.0, 0);
        var result = BreakPlay.Play(
            from,
            situation =>
            {
                var choice = shots++ == 0 ? first : search.Shallow(workspace, situation);
                return choice is null ? null : BreakAdvice.IntentionOf(choice);
            },
            context.Player.Skill,
            context.Shape,
            _ => StandardDraws.Draw(random),
            (situation, _, played) => value += context.Evaluation.OutcomeOf(situation.Frame, played.Ruling)
        );
        return new(result.Points, value, shots);
    }
}
