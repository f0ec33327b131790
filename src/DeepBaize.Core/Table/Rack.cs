using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>The balls as they stand at the start of a frame (the rules, Section 3).</summary>
public static class Rack
{
    /// <summary>
    /// Clear distance between the pink on its spot and the apex red, m: as near as can be set without touching. Common practice, no source.
    /// </summary>
    public const double PinkGap = 0.0005;

    /// <summary>The fifteen reds: apex behind the pink, five rows towards the top cushion, touching.</summary>
    public static IReadOnlyList<PlacedBall> Pack()
    {
        var pink = Spot(Ball.Pink);
        // A hair apart, so that rounding never makes an overlap; far below what counts as touching.
        const double pitch = 2 * BallRadius + 1e-10;
        var reds = new List<PlacedBall>();
        for (var row = 0; row < 5; row++)
            for (var place = 0; place <= row; place++)
                reds.Add(
                    new(
                        Ball.Red(reds.Count + 1),
                        pink.X + 2 * BallRadius + PinkGap + row * pitch * Math.Sqrt(3) / 2,
                        pink.Y + (place - row / 2.0) * pitch
                    )
                );
        return reds;
    }

    /// <summary>The six colours on their spots.</summary>
    public static IReadOnlyList<PlacedBall> Colours() => [.. Ball.Colours.Select(c => new PlacedBall(c, Spot(c)))];

    /// <summary>
    /// Ten reds along the middle line, between blue and pink, pink and black, and above the black. Common practice, no source.
    /// </summary>
    public static IReadOnlyList<PlacedBall> RedsInLine() =>
        [
            .. new[] { 1.95, 2.12, 2.29, 2.46, 2.60, 2.80, 2.92, 3.04, 3.16, 3.36 }.Select(
                (x, i) => new PlacedBall(Ball.Red(i + 1), x, Width / 2)
            ),
        ];

    /// <summary>The line-up: colours on their spots, reds in line between them, the cue ball beside them.</summary>
    public static IReadOnlyList<PlacedBall> LineUp() => [new(Ball.White, 2.55, 0.60), .. Colours(), .. RedsInLine()];

    /// <summary>The colours on their spots with the cue ball in the D, as after the last red.</summary>
    public static IReadOnlyList<PlacedBall> ColoursAlone() => [new(Ball.White, 0.55, 0.75), .. Colours()];

    /// <summary>Colours and pack, with the cue ball in the D between brown and yellow.</summary>
    public static IReadOnlyList<PlacedBall> Opening() => [new(Ball.White, BaulkLineX - 0.03, Width / 2 - 0.14), .. Colours(), .. Pack()];
}
