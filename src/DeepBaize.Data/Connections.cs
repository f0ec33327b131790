using Npgsql;

namespace DeepBaize.Data;

/// <summary>How the application connects, whatever the settings leave open.</summary>
public static class Connections
{
    /// <summary>Of one instance: two of them and whoever looks after the database fit into the 50 that ./start allows.</summary>
    public const int MostAtOnce = 20;

    private static readonly TimeSpan Statement = TimeSpan.FromSeconds(15),
        Lock = TimeSpan.FromSeconds(10),
        IdleInTransaction = TimeSpan.FromSeconds(60);

    /// <summary>
    /// For requests: more of them than there are connections wait for one; no statement, lock or forgotten transaction holds one for long.
    /// </summary>
    public static string ForServing(string connection)
    {
        var settings = new NpgsqlConnectionStringBuilder(connection) { ApplicationName = "Deep Baize" };
        if (!settings.ShouldSerialize("Maximum Pool Size"))
            settings.MaxPoolSize = MostAtOnce;
        // A place in the pool is waited for longer than any statement may take.
        settings.Timeout = (int)Statement.TotalSeconds + 5;
        settings.CommandTimeout = (int)Statement.TotalSeconds + 5;
        settings.Options =
            $"{settings.Options} -c statement_timeout={Milliseconds(Statement)} -c lock_timeout={Milliseconds(Lock)} "
            + $"-c idle_in_transaction_session_timeout={Milliseconds(IdleInTransaction)}";
        return settings.ConnectionString;
    }

    /// <summary>For migrations: they may take as long as they need, and leave nothing behind.</summary>
    public static string ForPreparing(string connection) =>
        new NpgsqlConnectionStringBuilder(connection)
        {
            ApplicationName = "Deep Baize, preparing",
            CommandTimeout = 0,
            Pooling = false,
        }.ConnectionString;

    private static int Milliseconds(TimeSpan time) => (int)time.TotalMilliseconds;
}
