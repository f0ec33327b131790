namespace DeepBaize.Data;

/// <summary>A row that a user makes, changes and comes back to.</summary>
public interface IStoredRecord
{
    Guid Id { get; }
    Guid OwnerId { get; }
    DateTimeOffset UpdatedAt { get; set; }

    /// <summary>PostgreSQL's xmin: changes with every write, so that a save over another's save is noticed.</summary>
    uint Version { get; }
}
