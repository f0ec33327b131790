namespace DeepBaize.Data;

/// <summary>A row that is changed, or deleted, only by whoever has seen it as it is.</summary>
public interface IVersioned
{
    Guid Id { get; }

    /// <summary>PostgreSQL's xmin: changes with every write, so that a save over another's save is noticed.</summary>
    uint Version { get; }
}

/// <summary>A row that a user makes, changes and comes back to.</summary>
public interface IStoredRecord : IVersioned
{
    Guid OwnerId { get; }
    DateTimeOffset UpdatedAt { get; set; }
}

/// <summary>A row that can be deleted and restored.</summary>
public interface IBinned : IStoredRecord
{
    /// <summary>When it was deleted; null while it is at hand. What refers to it stays.</summary>
    DateTimeOffset? DeletedAt { get; set; }
}
