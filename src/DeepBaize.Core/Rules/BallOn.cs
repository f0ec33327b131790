using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>What must be struck first.</summary>
public enum BallOn
{
    /// <summary>A red.</summary>
    Red,

    /// <summary>Any colour, nominated by the striker.</summary>
    Colour,

    /// <summary>No ball of a frame: the balls of an exercise are on.</summary>
    Exercise,

    /// <summary>The yellow.</summary>
    Yellow,

    /// <summary>The green.</summary>
    Green,

    /// <summary>The brown.</summary>
    Brown,

    /// <summary>The blue.</summary>
    Blue,

    /// <summary>The pink.</summary>
    Pink,

    /// <summary>The black.</summary>
    Black,
}

/// <summary>Names and tests of the ball on.</summary>
public static class BallsOn
{
    /// <summary>The single colour that is on; null while reds, any colour or the balls of an exercise are.</summary>
    public static Ball? AsColour(this BallOn on) => on < BallOn.Yellow ? null : Ball.FromIndex((int)on - (int)BallOn.Yellow + 1);

    /// <summary>The name in the API and in files.</summary>
    public static string Name(this BallOn on) => on.ToString().ToLowerInvariant();

    /// <exception cref="InputException">No such name.</exception>
    public static BallOn Named(string name, string path) =>
        Enum.GetValues<BallOn>().Cast<BallOn?>().FirstOrDefault(o => o!.Value.Name() == name)
        ?? throw new InputException(path, "There is no such ball on.", string.Join(", ", Enum.GetValues<BallOn>().Select(Name)));

    /// <summary>Returns the ball on that is just this colour.</summary>
    public static BallOn Only(Ball colour) => (BallOn)(colour.Index - 1 + (int)BallOn.Yellow);

    /// <summary>Whether this ball may be on by the rules of a frame: a red, or the nominated or due colour.</summary>
    public static bool Includes(this BallOn on, Ball ball) =>
        on switch
        {
            BallOn.Red => ball.IsRed,
            BallOn.Colour => ball.IsColour,
            _ => on.AsColour() == ball,
        };
}
