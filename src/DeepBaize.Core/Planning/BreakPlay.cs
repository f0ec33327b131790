using DeepBaize.Core.Physics;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Planning;

/// <summary>A stroke that somebody would play: the aimed stroke, the ball it is played for, and by how much the errors grow at it.</summary>
public readonly record struct Intention(Stroke Stroke, Ball Nominated, double ErrorFactor);

/// <summary>How a break went.</summary>
/// <param name="Points">Made in it.</param>
/// <param name="Shots">That scored.</param>
/// <param name="IsCleared">Nothing was left.</param>
public readonly record struct BreakResult(int Points, int Shots, bool IsCleared);

/// <summary>Plays a break out: strokes that somebody chooses, with the errors of a player, until one does not score.</summary>
public static class BreakPlay
{
    /// <summary>No break is longer: fifteen reds and colours, the colours, and a free ball with its colour.</summary>
    public const int MostShots = 38;

    /// <param name="choose">The stroke to play from a situation; null to leave it.</param>
    public static BreakResult Play(Situation from, Func<Situation, Intention?> choose, Skill skill, TableShape shape, Random random)
    {
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        var (situation, points, shots) = (from, 0, 0);
        while (shots < MostShots && choose(situation) is { } intention)
        {
            StrokeError.Draw(random, skill.Times(intention.ErrorFactor)).Play(simulator, situation.Layout, intention.Stroke, record);
            var played = situation.Play(simulator, record, intention.Nominated, shape);
            if (played.Ruling.Points == 0) break;
            points += played.Ruling.Points;
            shots++;
            if (situation.Frame is { Reds: 0, Colours.Count: 1, Repeats: false }) return new(points, shots, true);
            situation = played.After;
        }
        return new(points, shots, false);
    }
}

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
public static class Advice
{
    /// <summary>The stroke that a plan would begin with; null if nothing is on.</summary>
    public static Choice? First(Situation situation, Skill skill, Player player, TableShape shape, PlanPreferences preferences, Thought thought = Thought.Full, CancellationToken cancel = default)
    {
        var context = new PlanContext(skill, player, shape, preferences, FairGate.Shared, cancel);
        var search = new ShotSearch(context);
        return thought == Thought.Glance ? search.Glance(new(context), situation) : search.Choose(situation, thought == Thought.Full ? Effort.Full : Effort.Later).FirstOrDefault();
    }

    /// <summary>A break played by that advice.</summary>
    public static BreakResult PlayBreak(Situation from, Skill skill, TableShape shape, int seed, Thought thought = Thought.Full) =>
        BreakPlay.Play(from, s => First(s, skill, Player.Default, shape, PlanPreferences.Default, thought) is { } c ? new(c.Stroke, c.Nominated, c.Reach.ErrorFactor) : null, skill, shape, new(seed));
}
