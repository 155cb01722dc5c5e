CREATE TABLE "directory_records" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "directory_records_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"search_id" uuid NOT NULL,
	"record" text NOT NULL,
	"facts" jsonb NOT NULL,
	"state" text NOT NULL,
	"reach" text[] NOT NULL,
	"contact_id" bigint,
	CONSTRAINT "directory_records_once" UNIQUE("search_id","record")
);
--> statement-breakpoint
CREATE TABLE "directory_searches" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"name" text NOT NULL,
	"provider" text NOT NULL,
	"trade" jsonb NOT NULL,
	"place" jsonb NOT NULL,
	"job_id" uuid,
	"batch_id" uuid,
	"budget" bigint NOT NULL,
	"spent" bigint DEFAULT 0 NOT NULL,
	"price" bigint NOT NULL,
	"total" integer NOT NULL,
	"left_out" integer DEFAULT 0 NOT NULL,
	"cursor" text,
	"pages" integer DEFAULT 0 NOT NULL,
	"is_whole" boolean DEFAULT false NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "directory_records" ADD CONSTRAINT "directory_records_search_id_directory_searches_id_fk" FOREIGN KEY ("search_id") REFERENCES "public"."directory_searches"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "directory_searches" ADD CONSTRAINT "directory_searches_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "directory_searches_list" ON "directory_searches" USING btree ("list_id","made_at");--> statement-breakpoint
UPDATE "connections" SET "document" = "document" || '{"directory": null}'::jsonb WHERE "document" IS NOT NULL AND NOT "document" ? 'directory';
