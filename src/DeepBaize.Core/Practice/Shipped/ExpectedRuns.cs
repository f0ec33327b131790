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
        new("line-up", "tour", 130.9, 5.6, 8, 8),
        new("black-off-its-spot", "tour", 217.0, 26.0, 8, 8),
        new("colours-in-order", "tour", 27.0, 0.0, 8, 8),
        new("last-red", "tour", 33.0, 1.6, 7, 8),
        new("line-up", "county", 75.3, 14.8, 5, 8),
        new("black-off-its-spot", "county", 101.5, 27.2, 5, 8),
        new("colours-in-order", "county", 20.3, 4.4, 6, 8),
        new("last-red", "county", 26.5, 3.6, 4, 8),
        new("line-up", "club", 38.3, 8.4, 2, 8),
        new("black-off-its-spot", "club", 45.5, 13.3, 2, 8),
        new("colours-in-order", "club", 6.4, 3.8, 1, 8),
        new("last-red", "club", 14.5, 4.3, 1, 8),
        new("line-up", "learner", 4.3, 1.2, 0, 8),
        new("black-off-its-spot", "learner", 2.6, 2.6, 0, 8),
        new("colours-in-order", "learner", 0.9, 0.6, 0, 8),
        new("last-red", "learner", 4.1, 2.1, 0, 8),
    ];

    /// <summary>Returns the expected run of a shipped routine for each preset; empty if it is no run.</summary>
    public static IReadOnlyList<ExpectedRun> Of(string routine) => [.. All.Where(r => r.Routine == routine)];
}
