using System.Text.Json.Nodes;
using DeepBaize.Data;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class DescriptionTests(Application app)
{
    internal static string Docs
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!File.Exists(Path.Combine(folder.FullName, "DeepBaize.slnx")))
                folder = folder.Parent!;
            return Path.Combine(folder.FullName, "docs");
        }
    }

    /// <summary>
    /// The page's client is generated from docs/openapi.json. To renew both: DEEPBAIZE_WRITE_OPENAPI=1, this test, then npm run api.
    /// </summary>
    [Fact]
    public async Task The_description_in_docs_is_the_one_served()
    {
        var served = await app.Client.GetStringAsync("/openapi/v1.json");
        var path = Path.Combine(Docs, "openapi.json");
        if (Environment.GetEnvironmentVariable("DEEPBAIZE_WRITE_OPENAPI") == "1")
            await File.WriteAllTextAsync(path, served);
        Assert.True(
            JsonNode.DeepEquals(JsonNode.Parse(await File.ReadAllTextAsync(path)), JsonNode.Parse(served)),
            "docs/openapi.json is out of date"
        );
    }

    [Fact]
    public async Task Every_operation_and_every_schema_is_described()
    {
        var served = JsonNode.Parse(await app.Client.GetStringAsync("/openapi/v1.json"))!;
        var operations =
            from path in served["paths"]!.AsObject()
            from operation in path.Value!.AsObject()
            where operation.Value!["summary"]?.GetValue<string>() is null or "" || operation.Value["operationId"] is null
            select $"{operation.Key} {path.Key}";
        Assert.Empty(operations);
        var schemas =
            from schema in served["components"]!["schemas"]!.AsObject()
            where schema.Value!["description"]?.GetValue<string>() is null or ""
            select schema.Key;
        Assert.Empty(schemas);
    }

    [Fact]
    public async Task Health_is_good_once_the_database_is_ready() => Assert.Equal("Healthy", await app.Client.GetStringAsync("/health"));

    [Fact]
    public async Task The_reference_names_every_condition_with_its_range()
    {
        var (_, reference) = await app.Send(HttpMethod.Get, "/api/reference");
        Assert.All(reference["conditions"]!.AsArray(), c =>
            Assert.InRange(c!["default"]!.GetValue<double>(), c["min"]!.GetValue<double>(), c["max"]!.GetValue<double>())
        );
        Assert.Equal(22, reference["ballIds"]!.AsArray().Count);
        var (_, table) = await app.Post("/api/table", new JsonObject());
        Assert.Equal((6, 6), (table["noses"]!.AsArray().Count, table["pockets"]!.AsArray().Count));
    }

    [Fact]
    public async Task The_migrations_make_the_model_and_every_table_of_data_has_an_owner()
    {
        var options = new DbContextOptionsBuilder<DeepBaizeContext>();
        DeepBaizeContext.Configure(options, app.Connection);
        await using var db = new DeepBaizeContext(options.Options);
        Assert.False(db.Database.HasPendingModelChanges());
        foreach (var entity in db.Model.GetEntityTypes().Where(e => e.ClrType != typeof(User)))
            Assert.Contains(entity.GetForeignKeys(), k =>
                k.PrincipalEntityType.ClrType == typeof(User) && k.Properties.Single().GetColumnName() == "owner_id" && k.IsRequired
            );
    }
}
