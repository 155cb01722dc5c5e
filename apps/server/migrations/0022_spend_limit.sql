CREATE TABLE "spend_limit" (
	"is_only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"month" bigint NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
