using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Break;

/// <summary>
/// A stroke that somebody would play: the aimed stroke, the pot it is played for, the ball nominated, and by how much the errors grow at
/// it.
/// </summary>
public readonly record struct Intention(Stroke Stroke, Pot Pot, Ball Nominated, double ErrorFactor);

/// <summary>Why a break ended.</summary>
public enum BreakEnd
{
    /// <summary>Nothing was left.</summary>
    Cleared,

    /// <summary>Nothing was on that was worth trying, or it was long enough.</summary>
    Left,

    /// <summary>The pot was missed.</summary>
    Missed,

    /// <summary>The stroke was a foul.</summary>
    Foul,
}

/// <summary>How a break went.</summary>
/// <param name="Points">Made in it.</param>
/// <param name="Shots">That scored.</param>
public readonly record struct BreakResult(int Points, int Shots, BreakEnd End)
{
    /// <summary>Whether the break cleared the table.</summary>
    public bool IsCleared => End == BreakEnd.Cleared;
}

/// <summary>Plays a break out: strokes that somebody chooses, with the errors of a player, until one does not score.</summary>
public static class BreakPlay
{
    /// <summary>No break is longer: fifteen reds and colours, the colours, and a free ball with its colour.</summary>
    public const int MostShots = 38;

    /// <param name="choose">The stroke to play from a situation; null to leave it.</param>
    /// <param name="skill">Whose errors they have.</param>
    /// <param name="draws">Of the k-th shot.</param>
    /// <param name="watch">Called with each stroke played and its outcome.</param>
    public static BreakResult Play(
        Situation from,
        Func<Situation, Intention?> choose,
        Skill skill,
        TableShape shape,
        Func<int, StandardDraws> draws,
        Action<Situation, Intention, PlayedStroke>? watch = null
    )
    {
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        var (situation, points, shots) = (from, 0, 0);
        while (shots < MostShots && choose(situation) is { } intention)
        {
            var able = skill.Times(intention.ErrorFactor);
            var scatter = Scatter.Of(situation.Layout, intention.Stroke, able, simulator, record, intention.Pot);
            scatter.Error(draws(shots)).Play(simulator, situation.Layout, intention.Stroke, record);
            var played = situation.Play(simulator, record, intention.Nominated, shape);
            watch?.Invoke(situation, intention, played);
            if (played.Ruling.Points == 0)
                return new(points, shots, played.Ruling.IsFoul ? BreakEnd.Foul : BreakEnd.Missed);
            points += played.Ruling.Points;
            shots++;
            if (situation.Frame.IsLastBall)
                return new(points, shots, BreakEnd.Cleared);
            situation = played.Leaves;
        }
        return new(points, shots, BreakEnd.Left);
    }
}
