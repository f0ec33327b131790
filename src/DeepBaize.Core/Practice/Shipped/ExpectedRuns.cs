namespace DeepBaize.Core.Practice.Shipped;

/// <summary>What a shipped run comes to with a preset skill: played by the planner's choice and with that skill's errors.</summary>
/// <param name="Points">Mean of the breaks.</param>
/// <param name="Error">Standard error of that.</param>
/// <param name="Reached">How many of them reached the routine's target.</param>
/// <param name="Breaks">How many were played.</param>
public sealed record ExpectedRun(string Routine, string Skill, double Points, double Error, int Reached, int Breaks)
{
    /// <summary>A run takes seconds to work out, so these are kept: made by <c>bench -- runs</c>.</summary>
    public static IReadOnlyList<ExpectedRun> All { get; } =
    [
        new("line-up", "tour", 112.0, 15.5, 7, 8),
        new("black-off-its-spot", "tour", 151.4, 30.4, 6, 8),
        new("colours-in-order", "tour", 16.0, 4.8, 4, 8),
        new("last-red", "tour", 30.0, 3.5, 6, 8),
        new("line-up", "county", 75.4, 14.3, 5, 8),
        new("black-off-its-spot", "county", 96.3, 26.7, 4, 8),
        new("colours-in-order", "county", 17.8, 4.2, 4, 8),
        new("last-red", "county", 23.4, 3.7, 3, 8),
        new("line-up", "club", 36.5, 10.2, 2, 8),
        new("black-off-its-spot", "club", 28.0, 13.0, 1, 8),
        new("colours-in-order", "club", 0.6, 0.6, 0, 8),
        new("last-red", "club", 13.3, 3.8, 1, 8),
        new("line-up", "learner", 6.8, 1.9, 0, 8),
        new("black-off-its-spot", "learner", 12.3, 7.6, 1, 8),
        new("colours-in-order", "learner", 0.3, 0.3, 0, 8),
        new("last-red", "learner", 2.3, 1.2, 0, 8),
    ];

    public static IReadOnlyList<ExpectedRun> Of(string routine) => [.. All.Where(r => r.Routine == routine)];
}
