CREATE TABLE "harvest_decisions" (
	"harvest_id" uuid NOT NULL,
	"site" text NOT NULL,
	"kind" text NOT NULL,
	"value" text NOT NULL,
	"decision" text NOT NULL,
	"corrected" text,
	"by" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "harvest_decisions_harvest_id_site_kind_value_pk" PRIMARY KEY("harvest_id","site","kind","value")
);
--> statement-breakpoint
CREATE TABLE "harvest_findings" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "harvest_findings_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"harvest_id" uuid NOT NULL,
	"page_id" bigint NOT NULL,
	"site" text NOT NULL,
	"kind" text NOT NULL,
	"value" text NOT NULL,
	"raw" text NOT NULL,
	"how" text NOT NULL,
	"confidence" real NOT NULL,
	"quote" text NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "harvest_findings_once" UNIQUE("page_id","kind","value")
);
--> statement-breakpoint
CREATE TABLE "harvest_pages" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "harvest_pages_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"harvest_id" uuid NOT NULL,
	"site" text NOT NULL,
	"url" text NOT NULL,
	"depth" integer NOT NULL,
	"rank" integer NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"problem" text,
	"final_url" text,
	"title" text DEFAULT '' NOT NULL,
	"language" text DEFAULT '' NOT NULL,
	"country" text,
	"html" "bytea",
	"business" jsonb,
	"left_out" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"fetched_at" timestamp with time zone,
	CONSTRAINT "harvest_pages_url" UNIQUE("harvest_id","url")
);
--> statement-breakpoint
CREATE TABLE "harvest_sites" (
	"harvest_id" uuid NOT NULL,
	"site" text NOT NULL,
	"position" integer NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"problem" text,
	"robots" text,
	"delay" real DEFAULT 0 NOT NULL,
	"next_at" timestamp with time zone,
	"times_busy" integer DEFAULT 0 NOT NULL,
	"country" text,
	CONSTRAINT "harvest_sites_harvest_id_site_pk" PRIMARY KEY("harvest_id","site")
);
--> statement-breakpoint
CREATE TABLE "harvests" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"name" text NOT NULL,
	"settings" jsonb NOT NULL,
	"job_id" uuid,
	"batch_id" uuid,
	"contact" text NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "number_formats" (
	"name" text PRIMARY KEY NOT NULL,
	"format" jsonb NOT NULL,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "harvests" ADD CONSTRAINT "harvests_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "harvest_findings_site" ON "harvest_findings" USING btree ("harvest_id","site");--> statement-breakpoint
CREATE INDEX "harvest_pages_site" ON "harvest_pages" USING btree ("harvest_id","site","state","rank","id");--> statement-breakpoint
CREATE INDEX "harvests_list" ON "harvests" USING btree ("list_id","made_at");