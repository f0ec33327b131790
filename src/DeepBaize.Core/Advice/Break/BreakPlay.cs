using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Break;

/// <summary>
/// A stroke that somebody would play: the aimed stroke, the ball it is played for, and by how much the errors grow at it.
/// </summary>
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
            if (played.Ruling.Points == 0)
                break;
            points += played.Ruling.Points;
            shots++;
            if (situation.Frame is { Reds: 0, Colours.Count: 1, Repeats: false })
                return new(points, shots, true);
            situation = played.Leaves;
        }
        return new(points, shots, false);
    }
}
