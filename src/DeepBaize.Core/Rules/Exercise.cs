using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>The order in which the balls of an exercise are on.</summary>
public enum ExerciseOrder
{
    /// <summary>Each of them at any time.</summary>
    Any,

    /// <summary>One after the other, as they are listed.</summary>
    InOrder,
}

/// <summary>
/// An exercise on any layout, outside the rules of a frame: its own balls are on, and a potted ball stays down. Fouls are those of a frame.
/// </summary>
/// <param name="Balls">The object balls still to be potted, each once.</param>
public sealed record Exercise(ExerciseOrder Order, IReadOnlyList<Ball> Balls)
{
    /// <summary>Whether a ball is on.</summary>
    public bool Includes(Ball ball) => Order == ExerciseOrder.InOrder ? Balls.Count > 0 && Balls[0] == ball : Balls.Contains(ball);

    /// <summary>Whether a ball can be on after the next pot.</summary>
    public bool MayFollow(Ball ball) => Order == ExerciseOrder.InOrder ? Balls.Count > 1 && Balls[1] == ball : Balls.Contains(ball);

    /// <summary>Value of the ball that is due, or of a red where any may be played; points.</summary>
    public int ValueOn => Order == ExerciseOrder.InOrder && Balls.Count > 0 ? Values.Of(Balls[0]) : Values.Red;

    /// <summary>Value of all the balls still to be potted, points.</summary>
    public int PointsLeft => Balls.Sum(Values.Of);

    /// <summary>Returns the exercise without the balls that are gone.</summary>
    public Exercise Without(IReadOnlyList<Ball> gone) => gone.Count == 0 ? this : this with { Balls = [.. Balls.Except(gone)] };
}
