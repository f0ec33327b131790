using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;

namespace DeepBaize.Benchmarks;

/// <summary>
/// A break played with plain random errors that had no part in what is told: the first shot as given, each later one by a quick look.
/// </summary>
/// <param name="Value">Of the table where it ended, in the measure of the answer.</param>
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
            (_, _, played) => value = workspace.ValueOf(played.Leaves)
        );
        return new(result.Points, value, shots);
    }
}
