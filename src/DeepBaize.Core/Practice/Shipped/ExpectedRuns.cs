namespace DeepBaize.Core.Practice.Shipped;

/// <summary>What a shipped run comes to with a preset skill: played by the planner's choice and with that skill's errors.</summary>
/// <param name="Points">Mean of the breaks.</param>
/// <param name="Error">Standard error of the mean.</param>
/// <param name="Reached">How many of them reached the routine's target.</param>
/// <param name="Breaks">How many were played.</param>
public sealed record ExpectedRun(string Routine, string Skill, double Points, double Error, int Reached, int Breaks)
{
    /// <summary>A run takes seconds to work out, so these are kept: made by <c>bench -- runs</c>.</summary>
    public static IReadOnlyList<ExpectedRun> All { get; } =
    [
        new("line-up", "tour", 105.9, 8.3, 26, 32),
        new("black-off-its-spot", "tour", 132.1, 16.3, 22, 32),
        new("colours-in-order", "tour", 13.4, 2.4, 15, 32),
        new("last-red", "tour", 30.2, 1.7, 24, 32),
        new("line-up", "county", 59.8, 6.8, 19, 32),
        new("black-off-its-spot", "county", 67.6, 11.6, 14, 32),
        new("colours-in-order", "county", 13.3, 2.2, 12, 32),
        new("last-red", "county", 19.0, 2.4, 9, 32),
        new("line-up", "club", 24.8, 4.4, 5, 32),
        new("black-off-its-spot", "club", 17.9, 4.8, 2, 32),
        new("colours-in-order", "club", 3.5, 1.3, 1, 32),
        new("last-red", "club", 11.3, 2.0, 3, 32),
        new("line-up", "learner", 6.8, 1.2, 0, 32),
        new("black-off-its-spot", "learner", 5.9, 2.2, 1, 32),
        new("colours-in-order", "learner", 0.3, 0.1, 0, 32),
        new("last-red", "learner", 4.2, 1.4, 1, 32),
    ];

    /// <summary>Returns the expected run of a shipped routine for each preset; empty if it is no run.</summary>
    public static IReadOnlyList<ExpectedRun> Of(string routine) => [.. All.Where(r => r.Routine == routine)];
}
