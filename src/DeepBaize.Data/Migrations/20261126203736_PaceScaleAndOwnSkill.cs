using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <summary>
    /// Paces are on another scale now, 0.24·pace^1.47 m/s and not 0.40·1.375^(pace − 1): every stroke that is stored, in positions,
    /// shots, plans and frames, keeps its speed. And a player may have a skill set by hand.
    /// </summary>
    public partial class PaceScaleAndOwnSkill : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "own_skill", table: "users", type: "jsonb", nullable: true);
            Rescale(migrationBuilder, "power(0.40 * power(1.375, pace - 1) / 0.24, 1 / 1.47)");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "own_skill", table: "users");
            Rescale(migrationBuilder, "1 + ln(0.24 * power(pace, 1.47) / 0.40) / ln(1.375)");
        }

        /// <summary>A stroke is an object with an aim and a pace, however deep it lies.</summary>
        private static void Rescale(MigrationBuilder migrationBuilder, string formula)
        {
            migrationBuilder.Sql(
                $$"""
                CREATE FUNCTION rescaled(told jsonb) RETURNS jsonb LANGUAGE plpgsql IMMUTABLE AS $function$
                DECLARE
                    pace double precision;
                    result jsonb;
                BEGIN
                    CASE jsonb_typeof(told)
                        WHEN 'array' THEN
                            SELECT coalesce(jsonb_agg(rescaled(item) ORDER BY place), '[]')
                                INTO result FROM jsonb_array_elements(told) WITH ORDINALITY AS items (item, place);
                        WHEN 'object' THEN
                            SELECT coalesce(jsonb_object_agg(name, rescaled(value)), '{}')
                                INTO result FROM jsonb_each(told) AS fields (name, value);
                            IF told ? 'aim' AND jsonb_typeof(told -> 'pace') = 'number' THEN
                                pace := (told ->> 'pace')::double precision;
                                result := result || jsonb_build_object('pace', round(least(10, greatest(1, {{formula}}))::numeric, 6));
                            END IF;
                        ELSE
                            result := told;
                    END CASE;
                    RETURN result;
                END
                $function$;
                """
            );
            foreach (
                var (table, column) in ((string, string)[])
                    [("positions", "content"), ("shots", "content"), ("plans", "content"), ("plans", "body"), ("frames", "shots")]
            )
                migrationBuilder.Sql($"UPDATE {table} SET {column} = rescaled({column}) WHERE {column}::text LIKE '%\"pace\"%';");
            migrationBuilder.Sql("DROP FUNCTION rescaled(jsonb);");
        }
    }
}
