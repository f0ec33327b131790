using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Break;

/// <summary>How much work goes into each piece of advice.</summary>
public enum Thought
{
    /// <summary>As a plan looks at the places where the white may stop: some milliseconds.</summary>
    Glance,

    /// <summary>As for the later shots of a plan.</summary>
    Short,

    /// <summary>As for the first shot of a plan.</summary>
    Full,
}

/// <summary>The planner's advice, shot after shot.</summary>
public static class BreakAdvice
{
    /// <summary>The stroke that a plan would begin with; null if nothing is on.</summary>
    public static Choice? First(
        Situation situation,
        Player player,
        TableShape shape,
        PlanPreferences preferences,
        Thought thought = Thought.Full,
        CancellationToken cancel = default
    )
    {
        var context = new SearchContext(player, shape, preferences, FairGate.Shared, cancel);
        var search = new ShotSearch(context);
        return thought == Thought.Glance
            ? search.Glance(new(context), situation)
            : search.Choose(situation, thought == Thought.Full ? Effort.Full : Effort.Later).FirstOrDefault();
    }

    /// <summary>A break played by that advice, with plain random errors: independent of all that the advice was drawn from.</summary>
    public static BreakResult PlayBreak(Situation from, Player player, TableShape shape, int seed, Thought thought = Thought.Full)
    {
        var random = new Random(seed);
        return BreakPlay.Play(
            from,
            s => First(s, player, shape, PlanPreferences.Default, thought) is { } c ? IntentionOf(c) : null,
            player.Skill,
            shape,
            (_, skill) => StrokeError.Draw(random, skill)
        );
    }

    public static Intention IntentionOf(Choice choice) => new(choice.Stroke, choice.Nominated, choice.Reach.ErrorFactor);
}
