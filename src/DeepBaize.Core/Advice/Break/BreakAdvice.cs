using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Break;

/// <summary>How much work goes into each piece of advice.</summary>
public enum Thought
{
    /// <summary>As a plan looks at the places where the white may stop: some milliseconds.</summary>
    Shallow,

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
        bool isTold = true,
        CancellationToken cancel = default
    )
    {
        var effort = thought == Thought.Full ? Effort.Full : Effort.Later;
        if (!isTold)
            effort = effort with { Reported = 1, LookAheadSamples = 0 };
        var context = new SearchContext(new(situation.Frame, player, shape, preferences), FairGate.Shared, cancel);
        var search = new ShotSearch(context);
        return thought == Thought.Shallow ? search.Shallow(new(context), situation) : search.Choose(situation, effort).FirstOrDefault();
    }

    /// <summary>A break played by that advice, with plain random errors: independent of all that the advice was drawn from.</summary>
    /// <param name="adviceFor">Who is thought to play; the player himself unless said otherwise.</param>
    /// <param name="watch">Called with each stroke played and its outcome.</param>
    public static BreakResult PlayBreak(
        Situation from,
        Player player,
        TableShape shape,
        int seed,
        Thought thought = Thought.Full,
        Player? adviceFor = null,
        Action<Situation, Intention, PlayedStroke>? watch = null
    )
    {
        var random = new Random(seed);
        return BreakPlay.Play(
            from,
            // What is chosen is played, and need not be told.
            s => First(s, adviceFor ?? player, shape, PlanPreferences.Default, thought, isTold: false) is { } c ? IntentionOf(c) : null,
            player.Skill,
            shape,
            _ => StandardDraws.Draw(random),
            watch
        );
    }

    /// <summary>Returns the stroke and the ball named for it.</summary>
    public static Intention IntentionOf(Choice choice) => new(choice.Stroke, choice.Pot, choice.Nominated, choice.Reach.ErrorFactor);
}
